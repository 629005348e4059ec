import { memo } from "react";
import type { Point } from "../../drawn/stageView";
import { MARK_WORDS } from "../../words";
import { aside } from "../stage/hand/hit";
import { cross } from "./surveyMark";

/** A mark of the frame that is shown: placed by hand, accepted from a machine, or followed. */
export interface ShownMark {
  name: string;
  x: number;
  y: number;
  source: "hand" | "tracked" | "proposed" | "accepted";
  sd_px: number;
}

interface Props {
  marks: ShownMark[];
  place: (point: Point) => Point;
  ink: string;
  chosen: string | null; // the one in hand or selected: singled out, the others step back
  aim: Point | null; // where another one is to be put: what lies there moves aside
}

const SOURCE_WORDS = {
  hand: "",
  tracked: "followed",
  proposed: "proposed",
  accepted: "accepted as proposed",
} as const;

/** The marks of one frame as a surveyor sets them: fine crosses with an open middle, a filled one where followed. */
export const MarkLayer = memo(function MarkLayer({ marks, place, ink, chosen, aim }: Props) {
  const dim = chosen !== null || aim !== null;
  return (
    <g>
      {marks.map((mark, i) => {
        const true_ = place(mark);
        const own = mark.name === chosen;
        const at = aim && !own ? aside(true_, aim, i) : true_;
        const moved = at.x !== true_.x || at.y !== true_.y;
        const followed = mark.source === "tracked";
        const machine = mark.source === "accepted" || mark.source === "proposed";
        return (
          <g
            key={mark.name}
            data-mark={mark.name}
            data-tracked={followed || undefined}
            className={aim ? "pointer-events-none" : "cursor-move"}
            opacity={dim && !own ? 0.5 : 1}
            transform={`translate(${at.x} ${at.y})`}
          >
            <title>{titleOf(mark)}</title>
            {moved && (
              <line
                x2={true_.x - at.x}
                y2={true_.y - at.y}
                stroke={ink}
                strokeWidth={0.75}
                strokeDasharray="1 3"
              />
            )}
            <SurveyMark own={own} machine={machine} followed={followed} ink={ink} />
          </g>
        );
      })}
    </g>
  );
});

/** One mark about its own point: it stays as it is while it goes through the picture. */
const SurveyMark = memo(function SurveyMark(props: {
  own: boolean;
  machine: boolean;
  followed: boolean;
  ink: string;
}) {
  const { own, machine, followed, ink } = props;
  const shape = own ? cross(4, 14, machine) : cross(2.5, 8, machine);
  return (
    <>
      <circle r={12} fill="transparent" />
      <path d={shape} stroke="#10201D" strokeWidth={own ? 4 : 3} strokeOpacity={0.75} fill="none" />
      <path d={shape} stroke={own ? "#F6F3EA" : ink} strokeWidth={own ? 1.75 : 1.25} fill="none" />
      {followed && <path d="M0 -3l3 3l-3 3l-3 -3z" fill={ink} stroke="#10201D" strokeWidth={0.75} />}
    </>
  );
});

function titleOf({ name, source, sd_px }: ShownMark): string {
  const words = MARK_WORDS[name] ?? name;
  if (source === "hand") return words;
  const error = source === "tracked" ? `, ±${(1.96 * sd_px).toFixed(1)} px` : "";
  return `${words} (${SOURCE_WORDS[source]}${error})`;
}
