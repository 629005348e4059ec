import { ScanEye } from "lucide-react";
import type { Schemas } from "../api/client";
import { type Try, tryWords } from "../check/tryWords";
import { day } from "../parts/when";
import type { Units } from "../units";
import type { Hand } from "../words";

/** The way to have a drill checked by a machine, and what it said the last time. */
export function CheckIt(props: {
  drill: Schemas["DrillSent"];
  tries: Try[];
  token: string;
  units: Units;
  hand: Hand;
}) {
  const { drill, tries, token, units, hand } = props;
  const last = tries.find((each) => each.drill === drill.id);
  return (
    <>
      <a className="btn mb-1 w-full" href={`/p/${token}/check/${encodeURIComponent(drill.id)}`}>
        <ScanEye size={18} aria-hidden /> Film it and have it checked
      </a>
      {last && (
        <p className="mb-2 text-sm">
          {day(last.received_at)}:{" "}
          {last.answer ? tryWords(last.answer, drill.view, units, hand)[0] : "being looked at"}.
        </p>
      )}
    </>
  );
}
