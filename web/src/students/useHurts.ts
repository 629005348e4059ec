import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { bodyQuery } from "../api/queries";
import { achesInWords, partWords } from "./bodyWords";

type Swing = Pick<Schemas["BenchSwing"], "student" | "hand" | "what_hurts" | "hurts">;

/** What hurts: what was said with the swing, and what is known of the student, in one line. */
export function useHurts(swing: Swing | undefined): string {
  const id = swing?.student?.id ?? "";
  const body = useQuery({ ...bodyQuery(id), enabled: id !== "" });
  if (!swing) return "";
  const known = body.data?.aches ?? [];
  const said = swing.hurts.filter((part) => !known.some((ache) => ache.part === part));
  return [
    swing.what_hurts,
    said.map((part) => partWords(part, swing.hand)).join(", "),
    achesInWords(known, swing.hand),
  ]
    .filter(Boolean)
    .join("; ");
}
