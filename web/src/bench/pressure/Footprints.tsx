import { useMemo } from "react";
import { Shoe } from "../../drawn/FloorShapes";
import { PAPER_INK } from "../../drawn/ink";
import { useBench, useFrame } from "../benchContext";
import { OTHER, type Side } from "../benchState";
import { Compass } from "../readings/FloorPlan";
import { useCourse } from "../whole/useCourse";
import { brokenLine, FEET, feetSeen, layFeet, placeIn, plainFeet, wholePlace } from "./feet";
import { FELT, type FeltFrames, feltOn } from "./felt";

const WIDE = 284;
const TALL = 190;
const PAD = 20;
const LEAST_DOT = 2;
const MOST_DOT = 6; // of a foot that carries all

type At = ReturnType<typeof layFeet>;

/** Both shoes with the way of the pressure under each foot and of the whole; where it is now stands out. */
export function Footprints({ side }: { side: Side }) {
  const state = useBench((bench) => bench.sides[side]);
  const own = useCourse(side, FELT).found?.course;
  const other = useCourse(OTHER[side], FELT).found?.course;
  const left = state?.swing.hand === "left";
  const seen = useMemo(() => feetSeen(state?.floor.marks ?? []), [state?.floor]);
  const feet = useMemo(() => seen ?? plainFeet(), [seen]);
  const at = useMemo(() => layFeet(feet, left, WIDE, TALL, PAD), [feet, left]);
  const felt = useMemo(() => own && feltOn(own), [own]);
  const rival = useMemo(() => other && feltOn(other), [other]);
  const outline = ["heel", "outer", "toe", "inner"] as const;
  return (
    <figure className="flex w-56 shrink-0 flex-col">
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        className="block min-h-0 flex-1"
        role="img"
        aria-label="Both shoes from above, with the way of the pressure under each and of the whole; the ball is up"
      >
        <g opacity={0.75}>
          {FEET.map((foot) => (
            <Shoe
              key={foot}
              ink="var(--color-base-content)"
              outline={outline.map((part) => at(feet[foot][part]))}
            />
          ))}
        </g>
        {rival && <Way felt={rival} feet={feet} at={at} side={OTHER[side]} />}
        {felt && <Way felt={felt} feet={feet} at={at} side={side} />}
        <Compass left={left} tall={TALL} wide={WIDE} />
      </svg>
      {!seen && (
        <figcaption className="px-1 text-xs opacity-80">
          The shoes are drawn plain: mark heels and toes, and set the mat, to see them as they stood.
        </figcaption>
      )}
    </figure>
  );
}

/** The way of one swing's pressure, on the shoes of the student's: so two swings can be laid on each other. */
function Way(props: { felt: FeltFrames; feet: ReturnType<typeof plainFeet>; at: At; side: Side }) {
  const { felt, feet, at, side } = props;
  const ink = PAPER_INK[side];
  const frame = useFrame(side);
  const lines = useMemo(
    () => ({
      lead: brokenLine(felt.felt.map(({ lead }) => lead && at(placeIn(feet.lead, ...lead)))),
      trail: brokenLine(felt.felt.map(({ trail }) => trail && at(placeIn(feet.trail, ...trail)))),
      whole: brokenLine(
        felt.felt.map((each) => {
          const place = wholePlace(feet, each);
          return place && at(place);
        }),
      ),
    }),
    [felt, feet, at],
  );
  const i = felt.frames.indexOf(frame);
  const now = felt.felt[i];
  const whole = now && wholePlace(feet, now);
  const middle = whole && at(whole);
  return (
    <g stroke={ink} fill="none" data-way={side}>
      <path d={lines.lead} strokeWidth={1.2} />
      <path d={lines.trail} strokeWidth={1.2} />
      <path d={lines.whole} strokeWidth={2.2} strokeDasharray="5 2" />
      {FEET.map((foot) => {
        const place = now?.[foot];
        const off = felt.off[foot][i];
        if (!place || !off || now.share === null) return null;
        const share = foot === "lead" ? now.share : 1 - now.share;
        const [toe, outer] = place;
        const dot = at(placeIn(feet[foot], toe, outer));
        const ends = (
          [
            [toe - off[0], outer, toe + off[0], outer],
            [toe, outer - off[1], toe, outer + off[1]],
          ] as const
        ).map(([a, b, c, d]) => [at(placeIn(feet[foot], a, b)), at(placeIn(feet[foot], c, d))] as const);
        return (
          <g key={foot} data-foot={foot}>
            {ends.map(([from, to], axis) => (
              <line
                key={axis === 0 ? "along" : "across"}
                x1={from.x}
                y1={from.y}
                x2={to.x}
                y2={to.y}
                strokeWidth={1.2}
              />
            ))}
            <circle
              cx={dot.x}
              cy={dot.y}
              r={LEAST_DOT + (MOST_DOT - LEAST_DOT) * Math.sqrt(Math.max(share, 0))}
              fill={ink}
              stroke="var(--color-base-100)"
            />
          </g>
        );
      })}
      {middle && (
        <circle
          cx={middle.x}
          cy={middle.y}
          r={5}
          strokeWidth={2}
          fill="var(--color-base-100)"
          data-whole=""
        />
      )}
    </g>
  );
}
