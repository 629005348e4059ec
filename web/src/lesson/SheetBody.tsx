import { Check } from "lucide-react";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { FocusPart, type Ladder } from "./FocusPart";
import { FramePart } from "./FramePart";
import { Letterhead } from "./Letterhead";
import { Measured } from "./Measured";
import { Paragraphs } from "./Paragraphs";
import { TriedPart } from "./TriedPart";
import { WhatNext } from "./WhatNext";

type LessonSheet = Schemas["LessonSheet"];
type Frame = Schemas["LessonFrameOut"];

/**
 * What the student reads, made for a phone held in one hand: what already works, the one thing and what to do about
 * it, and only then, folded, all the rest.
 */
export function SheetBody(props: {
  sheet: LessonSheet;
  still: (frame: Frame) => string;
  walk?: ReactNode;
  linked?: boolean; // on a student's own page: earlier versions are a tap away
  ladder?: Ladder; // there too: steps that can be ticked
  ending?: ReactNode; // and what is said about it
}) {
  const { sheet, still, walk, linked = false, ladder, ending } = props;
  const { plan, units, hand } = sheet;
  const [first, ...others] = plan?.focus ?? [];
  return (
    <article className="mx-auto max-w-md bg-base-100 px-4 pt-5 pb-10">
      <header>
        <Letterhead look={sheet.look} instructor={sheet.instructor} />
        <p className="text-sm">
          For {sheet.student}
          {sheet.club && ` · ${sheet.club}`}
          {sheet.sent_at && ` · ${day(sheet.sent_at)}`}
        </p>
        <h1 className="text-2xl font-bold">{sheet.title}</h1>
        <div className="tape-edge mt-1 mb-4 text-brass-ink" aria-hidden />
        <Versions sheet={sheet} linked={linked} />
      </header>
      {walk}
      {sheet.opening && <Paragraphs text={sheet.opening} />}
      {plan && plan.strengths.length > 0 && (
        <section className="mt-4">
          <h2 className="text-lg font-bold">Already sound</h2>
          <ul className="mt-1 grid gap-1.5">
            {plan.strengths.map((words) => (
              <li key={words} className="flex gap-2">
                <Check size={18} className="mt-1 shrink-0" aria-hidden /> {words}
              </li>
            ))}
          </ul>
        </section>
      )}
      {first && <h2 className="mt-6 text-lg font-bold">The one thing</h2>}
      {paired(sheet.frames).map((frames) => (
        <div key={frames[0]?.id} className={frames.length > 1 ? "-mx-4 mt-2 grid grid-cols-2 gap-1" : ""}>
          {frames.map((frame) => (
            <FramePart
              key={frame.id}
              frame={frame}
              sheet={sheet}
              src={still(frame)}
              beside={frames.length > 1}
            />
          ))}
        </div>
      ))}
      {first && (
        <FocusPart focus={first} chain={plan?.chain ?? []} units={units} hand={hand} ladder={ladder} />
      )}
      {others.map((focus) => (
        <details key={focus.fault} className="mt-4 border-t-4 border-brass pt-2">
          <summary className="cursor-pointer font-semibold">Later: {focus.name}</summary>
          <FocusPart focus={focus} chain={[]} units={units} hand={hand} ladder={ladder} />
        </details>
      ))}
      {sheet.tries && <TriedPart told={sheet.tries} units={units} />}
      {plan && <Measured rows={plan.measured} units={units} hand={hand} />}
      {first && <WhatNext focus={first} hand={hand} />}
      {ending}
      <footer className="mt-8 border-t border-base-content/25 pt-3 text-xs">
        This is feedback on movement, not medical advice. With a joint replacement, a recent injury, pain or
        dizziness: no new drill before a physician or physiotherapist agrees. Stop at pain. This page is
        private; whoever has its link can read it, and all your lessons.
      </footer>
    </article>
  );
}

/** A correction is said to be one; what was sent before can still be read. */
function Versions({ sheet, linked }: { sheet: LessonSheet; linked: boolean }) {
  const { version, versions, sent_at } = sheet;
  const first = versions[0];
  if (versions.length < 2 || !sent_at || !first) return null;
  const newest = version === versions.length;
  return (
    <p className="mb-4 border-l-4 border-brass bg-base-200 p-2 text-sm">
      {newest
        ? `Corrected on ${day(sent_at)}; first sent on ${day(first.sent_at)}. `
        : `This is what was sent on ${day(sent_at)}; it was corrected since. `}
      <span data-no-print hidden={!linked}>
        {newest ? (
          <a className="link" href={`?version=${version - 1}`}>
            See what was sent before
          </a>
        ) : (
          <a className="link" href="?">
            Back to the newest
          </a>
        )}
      </span>
    </p>
  );
}

/** A student's frame and the reference's at the same moment, one after the other, are seen side by side. */
function paired(frames: Frame[]): Frame[][] {
  const found: Frame[][] = [];
  for (const frame of frames) {
    const [before] = found.at(-1)?.length === 1 ? (found.at(-1) ?? []) : [];
    const { whose, checkpoint } = frame.drawn;
    if (before && checkpoint && before.drawn.checkpoint === checkpoint && before.drawn.whose !== whose)
      found.at(-1)?.push(frame);
    else found.push([frame]);
  }
  return found;
}
