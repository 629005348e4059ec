import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { fromImpact, number, unitSign } from "../units";
import { forStudent, gaugeForStudent, momentWords } from "../words";
import { DrawnFrame } from "./DrawnFrame";
import { PlanParts } from "./PlanParts";
import { SheetWalk } from "./SheetWalk";

type LessonSheet = Schemas["LessonSheet"];
type Frame = Schemas["LessonFrameOut"];

/** What the student reads: made for a phone held in one hand. */
export function SheetView({
  sheet,
  still,
  walk,
}: {
  sheet: LessonSheet;
  still: (frame: Frame) => string;
  walk: string; // the address of its walk
}) {
  return (
    <article className="mx-auto max-w-md bg-base-100 px-4 pt-5 pb-10">
      <header>
        <p className="text-sm">
          For {sheet.student} from {sheet.instructor}
          {sheet.sent_at && `, ${day(sheet.sent_at)}`}
        </p>
        <h1 className="text-2xl font-bold">{sheet.title}</h1>
        <div className="tape-edge mt-1 mb-4 text-brass-ink" aria-hidden />
      </header>
      {sheet.walk && <SheetWalk walk={sheet.walk} base={walk} units={sheet.units} hand={sheet.hand} />}
      {sheet.opening && <Paragraphs text={sheet.opening} />}
      {sheet.frames.map((frame) => (
        <FramePart key={frame.id} frame={frame} sheet={sheet} src={still(frame)} />
      ))}
      {sheet.plan && <PlanParts plan={sheet.plan} units={sheet.units} hand={sheet.hand} />}
      <footer className="mt-8 border-t border-base-content/25 pt-3 text-xs">
        This is feedback on movement, not medical advice. With a joint replacement, a recent injury, pain or
        dizziness: no new drill before a physician or physiotherapist agrees. Stop at pain. This page is
        private; whoever has its link can read it.
      </footer>
    </article>
  );
}

function Paragraphs({ text }: { text: string }) {
  return (
    <>
      {text
        .split(/\n+/)
        .filter(Boolean)
        .map((line) => (
          <p key={line} className="mb-3 leading-relaxed">
            {line}
          </p>
        ))}
    </>
  );
}

function FramePart({ frame, sheet, src }: { frame: Frame; sheet: LessonSheet; src: string }) {
  const { drawn } = frame;
  const mine = drawn.whose === "student";
  const moment = drawn.checkpoint ? momentWords(drawn.checkpoint) : fromImpact(drawn.time_from_impact_s);
  return (
    <section className="mt-6">
      <h2 className="mb-2 flex items-center gap-2 font-semibold">
        <span className={`h-3 w-3 rounded-full ${mine ? "bg-clay" : "bg-slate"}`} aria-hidden />
        {mine ? "You" : drawn.name}: {moment.toLowerCase()}
      </h2>
      <DrawnFrame
        frame={frame}
        src={src}
        units={sheet.units}
        mirrored={drawn.hand !== sheet.hand}
        hand={sheet.hand}
      />
      {frame.words && (
        <div className="mt-3">
          <Paragraphs text={frame.words} />
        </div>
      )}
      {mine && drawn.values.length > 0 && (
        <ul className="mt-2 border-l-4 border-clay pl-3 text-sm">
          {drawn.values.filter(worthTelling).map((value) => (
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
      {drawn.gauges.length > 0 && (
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
