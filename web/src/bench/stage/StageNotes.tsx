import { MARK_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { chalkIn, KNOWN_LENGTH, MAT, PLAYER, PLUMB, type Side, type SideState } from "../benchState";
import { MAT_CORNERS } from "../ground/useLaying";
import { Doubts } from "../marks/Doubts";
import { type ProposedMark, TakeProposed } from "../marks/ProposedMarks";
import { ProposedPegs } from "../rule/ProposedPegs";

interface Props {
  side: Side;
  state: SideState;
  proposed: ProposedMark[];
  corners: number; // of a mat that is laid, clicked so far
  chosen: string | undefined; // a mark of this frame
}

/** What a stage asks and offers at Mark. Over the sky: it must never cover a foot or a hip that is to be clicked. */
export function StageNotes({ side, state, proposed, corners, chosen }: Props) {
  const marking = useBench((bench) => bench.station === "mark");
  const tool = useBench((bench) => (bench.active === side ? bench.tool : null));
  return (
    <div
      className="pointer-events-none absolute inset-x-1 top-1 grid justify-items-start gap-1 *:pointer-events-auto"
      onPointerDown={(event) => event.stopPropagation()}
    >
      {tool && !chalkIn(tool) && (
        <p className={SAID} role="status">
          {asked(tool, corners)}
        </p>
      )}
      {chosen && !tool && marking && (
        <p className={SAID} role="status">
          {MARK_WORDS[chosen]} · arrows nudge, Delete removes
        </p>
      )}
      {marking && (
        <>
          <Doubts side={side} state={state} />
          <TakeProposed side={side} marks={proposed} />
          <ProposedPegs side={side} state={state} />
        </>
      )}
    </div>
  );
}

const SAID = "pointer-events-none rounded-sm bg-dusk/85 px-2 py-1 text-sm";

/** What the tool in hand asks for. */
function asked(tool: string, cornersClicked: number): string {
  if (tool === KNOWN_LENGTH) return "Drag along the known length";
  if (tool === PLAYER) return "Click whoever plays: the machine looks again there";
  if (tool === PLUMB) return "Drag along an upright edge: a wall's corner, a door";
  if (tool === MAT) return `Click a corner of the mat (${cornersClicked + 1} of ${MAT_CORNERS})`;
  return `Click the ${MARK_WORDS[tool]?.toLowerCase()}`;
}
