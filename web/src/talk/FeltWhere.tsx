import { type Hand, mirrored } from "../words";
import { type FeltPlace, placeWords, SPEAKS_UP } from "./felt";

const WIDE = 120;
const HIGH = 270;

/** Where on the drawn figure a place lies; of paired ones the figure's left in the picture. */
const FRONT: [string, number, number, boolean][] = [
  ["shoulder", 38, 62, true],
  ["side", 40, 100, true],
  ["belly", 60, 106, false],
  ["hip", 34, 134, true],
  ["thigh_front", 42, 158, true],
  ["thigh_inside", 50, 180, true],
  ["knee", 46, 203, true],
  ["foot", 42, 256, true],
];
const BACK: [string, number, number, boolean][] = [
  ["upper_back", 60, 76, false],
  ["low_back", 60, 112, false],
  ["seat", 48, 138, true],
  ["thigh_back", 46, 172, true],
  ["calf", 46, 224, true],
];

/** A figure from the front and from behind: a tap says where a drill was felt. */
export function FeltWhere(props: { places: FeltPlace[]; hand: Hand; change: (places: FeltPlace[]) => void }) {
  return (
    <fieldset>
      <legend className="text-sm font-semibold">Where did you feel it?</legend>
      <div className="grid grid-cols-2 gap-2">
        <Figure {...props} title="From the front" zones={FRONT} own="left" />
        <Figure {...props} title="From behind" zones={BACK} own="right" />
      </div>
    </fieldset>
  );
}

/** `own`: which side of the body lies right in the picture. */
function Figure(props: {
  title: string;
  zones: [string, number, number, boolean][];
  own: "left" | "right";
  places: FeltPlace[];
  hand: Hand;
  change: (places: FeltPlace[]) => void;
}) {
  const { title, zones, own, places, hand, change } = props;
  const lead = mirrored(hand);
  const all = zones.flatMap(([part, x, y, paired]) =>
    paired
      ? [
          { place: `${own === lead ? "trail" : "lead"}_${part}` as FeltPlace, x, y },
          { place: `${own === lead ? "lead" : "trail"}_${part}` as FeltPlace, x: WIDE - x, y },
        ]
      : [{ place: part as FeltPlace, x, y }],
  );
  return (
    <figure className="min-w-0">
      <div className="relative mx-auto max-w-56">
        <Mannequin />
        {all.map(({ place, x, y }) => {
          const felt = places.includes(place);
          return (
            <button
              key={place}
              type="button"
              aria-pressed={felt}
              aria-label={placeWords(place, hand)}
              title={placeWords(place, hand)}
              className={`absolute grid h-6 w-6 -translate-1/2 place-items-center rounded-full border ${felt ? "border-pine bg-brass text-dusk" : "border-base-content/50 bg-base-100/70"} ${SPEAKS_UP.has(place) ? "border-dashed" : ""}`}
              style={{ left: `${(100 * x) / WIDE}%`, top: `${(100 * y) / HIGH}%` }}
              onClick={() => change(felt ? places.filter((each) => each !== place) : [...places, place])}
            >
              <span aria-hidden className="text-xs leading-none font-bold">
                {felt ? "×" : ""}
              </span>
            </button>
          );
        })}
      </div>
      <figcaption className="text-center text-xs">{title}</figcaption>
    </figure>
  );
}

/** A jointed figure of turned wood, as painters use. */
function Mannequin() {
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="block w-full text-base-300" aria-hidden>
      <g fill="none" stroke="currentColor" strokeLinecap="round" strokeLinejoin="round">
        <path d="M36 60 L22 100 L18 138 M84 60 L98 100 L102 138" strokeWidth="13" />
        <path d="M50 140 L46 200 L44 244 M70 140 L74 200 L76 244" strokeWidth="23" />
        <path d="M44 250 L36 260 M76 250 L84 260" strokeWidth="13" />
      </g>
      <g fill="currentColor">
        <ellipse cx="60" cy="25" rx="14" ry="18" />
        <path d="M53 40 h14 v12 h-14 z" />
        <path d="M34 54 Q60 44 86 54 Q88 84 80 104 Q60 112 40 104 Q32 84 34 54 z" />
        <path d="M40 100 Q60 108 80 100 L85 140 Q60 156 35 140 z" />
      </g>
    </svg>
  );
}
