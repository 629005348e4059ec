import type { ClipFrames } from "../../frames/clipFrames";
import { fromImpact } from "../../units";
import { PEG_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf, type Side, type SideState, timelineOf } from "../benchState";
import { timeFromImpact } from "../rule/pegLink";

const RATE_FROM = {
  sender: "Frames a second in reality; for slow motion as its sender said",
  file: "Frames a second in reality, as the file says",
};

interface Props {
  side: Side;
  state: SideState;
  frame: number; // on the stage now
  exact: ClipFrames["exact"] | null;
}

/** Which frame it is, when it is, and what is pegged there. */
export function StageFooter({ side, state, frame, exact }: Props) {
  const { clip } = state;
  const edit = useBench((bench) => bench.edit);
  const seconds = timeFromImpact(timelineOf(state), frame);
  const peg = onOf(state).pegs.find((each) => each.frame === frame);
  const slowed = Math.round((10 * (clip.capture_fps ?? clip.played_fps)) / clip.played_fps) / 10;
  const after = onOf(state).pegs.find((each) => each.between && each.frame === frame - 1);
  return (
    <footer
      className="num flex h-8 shrink-0 items-center gap-4 px-2 text-sm whitespace-nowrap"
      aria-live="polite"
    >
      <span>
        frame <strong data-testid={`${side}-frame`}>{frame}</strong>
      </span>
      <span data-testid={`${side}-time`}>{fromImpact(seconds)}</span>
      <span className="min-w-0 truncate text-xs opacity-80" title={RATE_FROM[clip.capture_from]}>
        {Math.round(clip.capture_fps ?? clip.played_fps)}/s
        {slowed > 1 && ` · slowed ${slowed}×`}
      </span>
      {exact === "stills" && (
        <span className="text-xs" title="This browser cannot decode video frame by frame.">
          exact stills from the server
        </span>
      )}
      <span className="ml-auto text-[#D8AA4C]">
        {peg && `${PEG_WORDS[peg.name]}${peg.between ? ", the frame before" : ""}`}
        {!peg && after && "Impact, the frame after"}
      </span>
      {peg?.name === "impact" && (
        <button
          type="button"
          className={`btn btn-xs font-sans ${peg.between ? "btn-primary" : "btn-ghost"}`}
          aria-pressed={peg.between}
          title="Impact lies between this frame and the next (Shift I)"
          onClick={() =>
            edit(side, {
              kind: "peg",
              name: "impact",
              frame: peg.frame,
              between: !peg.between,
              accepted: false,
            })
          }
        >
          between this and the next
        </button>
      )}
    </footer>
  );
}
