import { MARK_WORDS } from "../../words";
import type { SideState } from "../benchState";
import type { Point } from "../stage/stageView";

interface Props {
  state: SideState;
  frame: number;
  place: (point: Point) => Point;
  ink: string;
  selected: string | null;
}

const SOURCE_WORDS = {
  hand: "",
  tracked: " (followed)",
  proposed: " (proposed)",
  accepted: " (accepted as proposed)",
} as const;

/** The marks of one frame: a ring with an open middle, so that the point itself stays visible. */
export function MarkLayer({ state, frame, place, ink, selected }: Props) {
  return (
    <g>
      {state.on.marks
        .filter((mark) => mark.frame === frame)
        .map((mark) => {
          const at = place(mark);
          const chosen = mark.name === selected;
          return (
            <g key={mark.name} data-mark={mark.name} className="cursor-move">
              <title>{`${MARK_WORDS[mark.name] ?? mark.name}${SOURCE_WORDS[mark.source]}`}</title>
              <circle cx={at.x} cy={at.y} r={14} fill="transparent" />
              <circle cx={at.x} cy={at.y} r={chosen ? 9 : 6} fill="none" stroke="#10201D" strokeWidth={4} />
              <circle
                cx={at.x}
                cy={at.y}
                r={chosen ? 9 : 6}
                fill="none"
                stroke={ink}
                strokeWidth={2}
                strokeDasharray={mark.source === "hand" ? undefined : "3 3"}
              />
              <path
                d={`M${at.x - 3} ${at.y}h6M${at.x} ${at.y - 3}v6`}
                stroke={chosen ? "#F6F3EA" : ink}
                strokeWidth={1}
              />
            </g>
          );
        })}
    </g>
  );
}
