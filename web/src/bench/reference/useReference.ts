import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { type Reference, shelfQuery, swingQuery } from "../../api/queries";
import { keep } from "../../parts/keep";
import { readPlace } from "../address";
import type { BenchSwing } from "../benchState";

export interface ReferenceOf {
  id: string; // of the swing that stands beside; "" for none
  swing?: BenchSwing;
  shelf: Reference[]; // those that can stand there, the best fitting first
  choose: (swingId: string) => void;
}

const rememberedKey = (studentId: string) => `tropometer.beside.${studentId}`;
const NONE = "none"; // on purpose
const VIEWS = "views"; // its own other view

/**
 * What stands beside a student's swing: what the address says, what stood there before, what was chosen for this
 * student the last time, else the model of the shelf that fits. While a hand is led it is the swing's own other
 * view: what is worth looking at is looked at from both sides at once.
 */
export function useReference(swing: BenchSwing | undefined, led: boolean, stoodBefore?: string): ReferenceOf {
  const shelf = useQuery(shelfQuery()).data?.items;
  const [addressed] = useState(() => readPlace(window.location.search).beside);
  const [chosen, setChosen] = useState<string | null>(null);
  const student = swing?.student;
  const ready = (shelf ?? []).filter((each) => each.clips.some((clip) => clip.state === "ready"));
  const fitting = byFit(ready, student?.teaching_model ?? "", swing?.hand);
  const near = new Set([...ready.map((each) => each.swing_id), ...(swing?.before ?? []).map(({ id }) => id)]);
  const remembered = student ? (localStorage.getItem(rememberedKey(student.id)) ?? undefined) : undefined;
  const twin = swing && hasViews(swing) ? swing.id : undefined;
  const standing = [addressed, stoodBefore, remembered === VIEWS ? twin : remembered].find(
    (id) => id && (id === addressed || id === NONE || id === twin || near.has(id)),
  );
  // Until the shelf is here it is not known what can stand there.
  const asked = !student || !shelf ? "" : (chosen ?? standing ?? fitting[0]?.swing_id ?? "");
  const id = (led && student && twin) || asked;
  const found = useQuery({ ...swingQuery(id), enabled: id !== "" && id !== NONE });
  // What an address names may be gone by now.
  const gone = found.error !== null && id === addressed;
  const instead = fitting[0]?.swing_id ?? NONE;
  useEffect(() => {
    if (gone) setChosen(instead);
  }, [gone, instead]);
  return {
    id: id === NONE ? "" : id,
    swing: found.data,
    shelf: fitting,
    choose: (swingId) => {
      setChosen(swingId || NONE);
      const kept = swingId === twin ? VIEWS : swingId || NONE;
      if (student) keep(localStorage, rememberedKey(student.id), kept);
    },
  };
}

/** Whether a swing can be seen from two sides at once. */
export const hasViews = (swing: BenchSwing): boolean =>
  swing.clips.filter((clip) => clip.state === "ready").length > 1;

/** References in the order in which they fit a student: first by the teaching model, then by the hand. */
export function byFit(shelf: Reference[], model: string, hand?: string): Reference[] {
  const match = (each: Reference) => 2 * Number(each.teaching_model === model) + Number(each.hand === hand);
  return [...shelf].sort((a, b) => match(b) - match(a));
}
