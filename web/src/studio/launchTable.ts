import type { Schemas } from "../api/client";

export type Looked = Schemas["LaunchLooked"];
export type Use = Schemas["ColumnUse"];
export type Uses = Record<string, Use>;
export type Decimal = Looked["decimal"];

export const SIDES: Record<Use["positive"], string> = {
  right: "plus is right",
  left: "plus is left",
  ball_side: "plus is the ball's side",
};

/** What is said of the columns now; those that are nothing here are left out. */
export const usesOf = (looked: Looked): Uses =>
  Object.fromEntries(looked.columns.flatMap(({ name, use }) => (use ? [[name, use]] : [])));

/** A column said to be a field, in that field's first unit; another column that was it is nothing then. */
export function said(looked: Looked, name: string, field: string): Uses {
  const others = Object.entries(usesOf(looked)).filter(
    ([other, use]) => other !== name && use.field !== field,
  );
  const kind = looked.fields.find((each) => each.field === field);
  const own: [string, Use][] = kind ? [[name, { field, unit: kind.units[0] ?? "", positive: "right" }]] : [];
  return Object.fromEntries([...others, ...own]);
}
