import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { fromImpact, number, unitSign } from "../units";
import { forStudent, gaugeForStudent, momentWords } from "../words";
import { DrawnFrame } from "./DrawnFrame";
import { Paragraphs } from "./Paragraphs";

type LessonSheet = Schemas["LessonSheet"];
type Frame = Schemas["LessonFrameOut"];

/** A frame of a sheet: its picture as it was drawn, the instructor's words, and what was measured there. */
export function FramePart(props: {
  frame: Frame;
  sheet: LessonSheet;
  src: string;
  beside: boolean; // it is one of a pair
}) {
  const { frame, sheet, src, beside } = props;
  const { drawn } = frame;
  const measured = new Set(drawn.gauges.flatMap(({ shapes }) => shapes.map(({ reading }) => reading)));
  const told = drawn.values.filter((value) => measured.has(value.reading) && worthTelling(value));
  const mine = drawn.whose !== "reference";
  const then = drawn.whose === "earlier";
  const moment = drawn.checkpoint ? momentWords(drawn.checkpoint) : fromImpact(drawn.time_from_impact_s);
  return (
    <section className={beside ? "min-w-0" : "mt-4"}>
      <h3 className={`flex items-center gap-2 font-semibold ${beside ? "mb-1 px-2 text-sm" : "mb-2"}`}>
        <span
          className={`h-3 w-3 shrink-0 rounded-full ${mine ? "bg-clay" : "bg-slate"} ${then ? "opacity-50" : ""}`}
          aria-hidden
        />
        <span className={beside ? "truncate" : ""}>
          {then && drawn.on ? `You, ${day(drawn.on)}` : mine ? "You" : drawn.name}
          {beside && (!mine || then) ? "" : `, ${moment.toLowerCase()}`}
        </span>
      </h3>
      <DrawnFrame
        frame={frame}
        src={src}
        units={sheet.units}
        mirrored={drawn.hand !== sheet.hand}
        hand={sheet.hand}
        beside={beside}
      />
      {frame.words && (
        <div className={beside ? "mt-2 px-2 text-sm" : "mt-3"}>
          <Paragraphs text={frame.words} />
        </div>
      )}
      {mine && told.length > 0 && (
        <ul className={`mt-2 border-l-4 border-clay pl-3 text-sm ${beside ? "mx-2" : ""}`}>
          {told.map((value) => (
            <li key={value.reading} className="py-0.5">
              {forStudent(
                value.reading,
                `${number(Math.abs(value.value), value.unit, sheet.units)} ${unitSign(value.unit, sheet.units)}`,
                value.value,
                drawn.hand,
              )}{" "}
              <span className="num text-xs whitespace-nowrap opacity-80">
                (± {number(value.u95, value.unit, sheet.units)} {unitSign(value.unit, sheet.units)})
              </span>
            </li>
          ))}
        </ul>
      )}
      {drawn.gauges.length > 0 && !beside && (
        <p className="mt-1 text-xs opacity-85">
          Lines: {drawn.gauges.map((gauge) => gaugeForStudent(gauge.id, drawn.hand)).join("; ")}.
        </p>
      )}
    </section>
  );
}

/** Room to spare needs no telling: a share says something while it is being used up. */
function worthTelling(value: Schemas["DrawnValue"]): boolean {
  return value.unit !== "ratio" || value.value <= 1;
}
