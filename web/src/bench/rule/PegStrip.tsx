import { ArrowDownToDot, X } from "lucide-react";
import { useRef } from "react";
import { CHECKPOINT_WORDS, CHECKPOINTS, type Checkpoint, isCheckpoint } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { onOf, openProposals, pegsOf, type Side, type SideState } from "../benchState";
import { usePicture } from "../frames/usePicture";
import { putPeg } from "./putPeg";

const sure = (confidence: number) => `${Math.round(confidence * 100)} %`;

/** A strip of the nine checkpoints: the pegged frames as small pictures, and where a peg is still wanted. */
export function PegStrip({ side, state }: { side: Side; state: SideState }) {
  const pegs = pegsOf(onOf(state));
  const pegHere = useBench(
    ({ stands }) =>
      onOf(state).pegs.find((peg) => peg.frame === stands[side].frame && isCheckpoint(peg.name))?.name,
  );
  const proposals = openProposals(state);
  return (
    <ol className="grid grid-cols-9 gap-0.5" aria-label="Pegs">
      {CHECKPOINTS.map(([name, short], i) => (
        <li
          key={name}
          className={`plate group relative overflow-hidden ${name === pegHere ? "border-brass bg-brass/25" : ""}`}
        >
          <Place
            side={side}
            state={state}
            name={name}
            short={short}
            number={i + 1}
            proposal={proposals.find((peg) => peg.name === name)}
          />
          {pegs[name] !== undefined && (
            <Repeg side={side} name={name} here={name === pegHere} number={i + 1} />
          )}
        </li>
      ))}
    </ol>
  );
}

interface PlaceProps {
  side: Side;
  state: SideState;
  name: Checkpoint;
  short: string;
  number: number; // in the order of the swing
  proposal?: { frame: number; confidence: number };
}

/** A checkpoint's place: goes to its peg, takes the one that is proposed, or pegs the frame that is shown. */
function Place({ side, state, name, short, number, proposal }: PlaceProps) {
  const bench = useBenchStore();
  const frame = pegsOf(onOf(state))[name];
  const words = CHECKPOINT_WORDS[name];
  const at = frame ?? proposal?.frame;
  const press = () => {
    bench.getState().set({ active: side, playing: null });
    if (frame === undefined) putPeg(bench, name, proposal?.frame, side);
    if (at !== undefined) bench.getState().goTo(side, at);
  };
  const does =
    frame !== undefined
      ? `go to frame ${frame}`
      : proposal
        ? `frame ${proposal.frame} is proposed; peg it`
        : "not pegged; peg this frame";
  const title =
    frame === undefined && proposal
      ? `${words} seems to be frame ${proposal.frame}, ${sure(proposal.confidence)} sure: peg it there`
      : `${words}: ${does}${frame === undefined ? ` (Shift ${number})` : ""}`;
  return (
    <button
      type="button"
      className="block w-full hover:bg-base-200"
      aria-label={`${short}: ${does}`}
      title={title}
      onClick={press}
    >
      <span
        className={`relative grid h-9 w-full place-items-center bg-base-200 ${
          frame === undefined && proposal ? "border border-dashed border-brass bg-dusk" : ""
        }`}
      >
        {at === undefined ? (
          <span className="num text-xs opacity-80" aria-hidden>
            ⇧{number}
          </span>
        ) : (
          <Small state={state} frame={at} faint={frame === undefined} />
        )}
        {frame === undefined && proposal && (
          <span className="num absolute right-0 bottom-0 bg-dusk/85 px-0.5 text-[10px] leading-tight text-paper">
            {proposal.frame}?
          </span>
        )}
      </span>
      <span className="block w-full truncate py-0.5 text-[10px] leading-tight tracking-tighter">{short}</span>
    </button>
  );
}

const PICTURE_PX = 96;

function Small({ state, frame, faint }: { state: SideState; frame: number; faint: boolean }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, proposals } = state.clip;
  // The player alone, where a worker saw where that is.
  const part = proposals.box ?? { left: 0, right: width, top: 0, bottom: height };
  usePicture(state.clip, frame, PICTURE_PX, part, canvas);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className={`absolute inset-0 h-full w-full ${proposals.box ? "bg-dusk object-contain" : "object-cover object-[50%_40%]"} ${faint ? "opacity-60" : ""} ${
        state.mirrored ? "-scale-x-100" : ""
      }`}
    />
  );
}

/** Moves a peg to the frame that is shown, or takes it away from there; seen when it is pointed at. */
function Repeg({
  side,
  name,
  here,
  number,
}: {
  side: Side;
  name: Checkpoint;
  here: boolean;
  number: number;
}) {
  const bench = useBenchStore();
  const words = CHECKPOINT_WORDS[name].toLowerCase();
  return (
    <button
      type="button"
      className="absolute top-0 right-0 grid h-6 w-6 place-items-center rounded-bl-sm bg-dusk/85 text-paper opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 hover:bg-dusk pointer-coarse:opacity-100"
      onClick={() => putPeg(bench, name, here ? null : undefined, side)}
      title={here ? `Take the ${words} peg away` : `Move the ${words} peg to this frame (Shift ${number})`}
      aria-label={here ? `Take the ${words} peg away` : `Move the ${words} peg here`}
    >
      {here ? <X size={13} aria-hidden /> : <ArrowDownToDot size={13} aria-hidden />}
    </button>
  );
}
