import { day } from "../parts/when";
import type { Units } from "../units";
import type { Hand, View } from "../words";
import { TryPicture } from "./TryPicture";
import { saidWords, type Try, tryWords } from "./tryWords";

const UNDER_WAY = {
  waiting: "The clip is being made ready…",
  looking: "The machine is looking…",
};

/** A filmed drill and what the machine said of it, for the student. */
export function TryCard(props: {
  of: Try;
  token: string;
  view: View | null;
  instructor: string;
  units: Units;
  hand: Hand;
}) {
  const { of, token, view, instructor, units, hand } = props;
  const { answer, state } = of;
  const [verdict, words] = answer ? tryWords(answer, view, units, hand) : ["", ""];
  return (
    <section
      className="mt-4 border-t border-base-content/20 pt-3"
      aria-label={`${of.name}, ${day(of.received_at)}`}
    >
      <p className="text-sm">{day(of.received_at)}</p>
      <div role="status">
        {answer && (
          <>
            <h2 className="text-xl font-bold">{verdict}</h2>
            <p>{words}</p>
          </>
        )}
        {state === "failed" && <p>This clip could not be used. {of.trouble || "Film it once more."}</p>}
        {(state === "waiting" || state === "looking") && (
          <p>
            <progress className="progress progress-accent block w-full" aria-label="Looking at your clip" />
            {UNDER_WAY[state]} You can leave this page; the answer stays here.
          </p>
        )}
      </div>
      {answer && (
        <>
          <div className="mt-2 max-w-60">
            <TryPicture
              of={of}
              src={`/api/pages/${token}/tries/${of.id}.jpg?height=720`}
              units={units}
              hand={hand}
            />
          </div>
          <p className="mt-1 text-sm">
            {saidWords(answer.said, instructor) ||
              `Said by a machine; ${instructor} has not looked at it yet.`}
          </p>
        </>
      )}
    </section>
  );
}
