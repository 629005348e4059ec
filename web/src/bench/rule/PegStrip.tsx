import { ArrowDownToDot, X } from "lucide-react";
import { stillOf } from "../../api/queries";
import { CHECKPOINT_WORDS, CHECKPOINTS, type Checkpoint, isCheckpoint } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { onOf, openProposals, pegsOf, type Side, type SideState } from "../benchState";
import { putPeg } from "./putPeg";

const sure = (confidence: number) => `${Math.round(confidence * 100)} %`;

/** A strip of the nine checkpoints: the pegged frames as small pictures, and where a peg is still wanted. */
export function PegStrip({ side, state }: { side: Side; state: SideState }) {
  const bench = useBenchStore();
  const set = useBench((bench) => bench.set);
  const goTo = useBench((bench) => bench.goTo);
  const pegs = pegsOf(onOf(state));
  const peg = (name: Checkpoint, frame?: number | null) => putPeg(bench, name, frame, side);
  const pegHere = useBench(
    ({ stands }) =>
      onOf(state).pegs.find((peg) => peg.frame === stands[side].frame && isCheckpoint(peg.name))?.name,
  );
  const proposals = openProposals(state);
  return (
    <ol className="grid grid-cols-9 gap-0.5" aria-label="Pegs">
      {CHECKPOINTS.map(([name, short], i) => {
        const frame = pegs[name];
        const here = name === pegHere;
        const proposed = frame === undefined ? proposals.find((peg) => peg.name === name) : undefined;
        const words = CHECKPOINT_WORDS[name];
        return (
          <li
            key={name}
            className={`plate relative overflow-hidden ${here ? "border-brass bg-brass/25" : ""}`}
          >
            {proposed && (
              <button
                type="button"
                className="relative block h-9 w-full border border-dashed border-brass bg-dusk"
                onClick={() => {
                  peg(name, proposed.frame);
                  goTo(side, proposed.frame);
                }}
                title={`${words} seems to be frame ${proposed.frame}, ${sure(proposed.confidence)} sure: peg it there`}
                aria-label={`${words}: frame ${proposed.frame} is proposed; peg it`}
              >
                <img
                  className={`h-full w-full object-cover object-[50%_40%] opacity-45 ${state.mirrored ? "-scale-x-100" : ""}`}
                  src={stillOf(state.clip, proposed.frame, 120)}
                  alt=""
                  loading="lazy"
                />
                <span className="num absolute inset-x-0 bottom-0 bg-dusk/85 text-[10px] leading-tight text-paper">
                  {proposed.frame}?
                </span>
              </button>
            )}
            <button
              type="button"
              hidden={proposed !== undefined}
              className="block h-9 w-full bg-dusk/90 text-paper disabled:bg-base-200 disabled:text-base-content/70"
              disabled={frame === undefined}
              onClick={() => {
                set({ active: side, playing: null });
                goTo(side, frame ?? 0);
              }}
              aria-label={
                frame === undefined ? `${words}: not pegged` : `Go to ${words.toLowerCase()}, frame ${frame}`
              }
            >
              {frame === undefined ? (
                <span className="num text-xs" aria-hidden>
                  ⇧{i + 1}
                </span>
              ) : (
                <img
                  className={`h-full w-full object-cover object-[50%_40%] ${state.mirrored ? "-scale-x-100" : ""}`}
                  src={stillOf(state.clip, frame, 120)}
                  alt=""
                  loading="lazy"
                />
              )}
            </button>
            <button
              type="button"
              className="block w-full truncate py-0.5 text-[10px] leading-tight tracking-tighter hover:bg-base-200"
              aria-label={`${short}: ${frame === undefined ? `peg ${words.toLowerCase()} here` : `go to ${words.toLowerCase()}`}`}
              onClick={() => {
                set({ active: side, playing: null });
                if (frame === undefined) peg(name);
                else goTo(side, frame);
              }}
              title={
                frame === undefined ? `${words}: peg this frame (⇧${i + 1})` : `Go to ${words.toLowerCase()}`
              }
            >
              {short}
            </button>
            {frame !== undefined && (
              <button
                type="button"
                className="absolute top-0 right-0 rounded-bl-sm bg-dusk/80 p-0.5 text-paper hover:bg-dusk"
                onClick={() => peg(name, here ? null : undefined)}
                title={
                  here
                    ? `Take the ${words.toLowerCase()} peg away`
                    : `Move the ${words.toLowerCase()} peg to this frame (⇧${i + 1})`
                }
                aria-label={
                  here
                    ? `Take the ${words.toLowerCase()} peg away`
                    : `Move the ${words.toLowerCase()} peg here`
                }
              >
                {here ? <X size={9} aria-hidden /> : <ArrowDownToDot size={9} aria-hidden />}
              </button>
            )}
          </li>
        );
      })}
    </ol>
  );
}
