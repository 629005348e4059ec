import type { Schemas } from "../../api/client";
import type { Gauge } from "../../drawn/gauge";
import type { Floor, Kinds, Reading } from "./reading";

/** Readings out of the columns in which they come; `clips` are the ids of the swing's clips in their order. */
export function readingsOf(columns: Schemas["ReadingColumns"][], clips: string[], kinds: Kinds): Reading[] {
  return columns.flatMap((column) => {
    const kind = kinds[column.reading];
    if (!kind) return [];
    return column.at.map((at, i) => ({
      ...kind,
      at,
      status: column.value[i] == null ? ("refused" as const) : ("ok" as const),
      value: column.value[i] ?? null,
      u95: column.u95[i] ?? null,
      clips: (within(column.clips, i) ?? []).flatMap((place) => clips[place] ?? []),
      frames: column.frames[i] ?? [],
      said: within(column.said, i) ?? "",
      reason: within(column.reason, i) ?? "",
      needs: within(column.needs, i) ?? [],
      provisional: within(column.provisional, i) ?? false,
      band: within(column.band, i) ?? null,
      standing: within(column.standing, i) ?? null,
    }));
  });
}

/** A column's entry: beyond its end the last one holds. */
export function within<Entry>(column: Entry[], i: number): Entry | undefined {
  return column[Math.min(i, column.length - 1)];
}

/** Gauges out of the columns in which they come. */
export function gaugesOf(columns: Schemas["GaugeColumns"][]): Gauge[] {
  return columns.map(({ id, label, lines, style, reading, unit, frame, points, target, value, u95 }) => ({
    id,
    label,
    lines,
    shapes: frame.flatMap((number, i) => {
      if (!style || !unit) return [];
      const given = { value: value[i] ?? null, u95: u95[i] ?? null };
      const drawn = { points: pairs(points[i] ?? []), target: pairs(within(target, i) ?? []) };
      return [{ frame: number, ...drawn, style, reading, unit, ...given }];
    }),
  }));
}

export function floorOf({ marks, cameras }: Schemas["FloorOut"]): Floor {
  return {
    cameras,
    marks: marks.flatMap(({ name, at, t, b, u95_t, u95_b }) =>
      at.map((moment, i) => ({
        name,
        at: moment,
        t: t[i] ?? 0,
        b: b[i] ?? 0,
        u95_t: u95_t[i] ?? 0,
        u95_b: u95_b[i] ?? 0,
      })),
    ),
  };
}

function pairs(flat: number[]): { x: number; y: number }[] {
  return Array.from({ length: flat.length / 2 }, (_, i) => ({
    x: flat[2 * i] ?? 0,
    y: flat[2 * i + 1] ?? 0,
  }));
}

/** What is held with what has changed in its place; what has not stays the very same object. */
export function replaced<Row>(held: Row[], changed: Row[], nameOf: (row: Row) => string): Row[] {
  const groups = new Map<string, Row[]>();
  const put = (rows: Row[]) => {
    for (const row of rows) groups.set(nameOf(row), [...(groups.get(nameOf(row)) ?? []), row]);
  };
  put(held);
  for (const name of new Set(changed.map(nameOf))) groups.set(name, []);
  put(changed);
  return [...groups.values()].flat();
}
