import type { Hand, View } from "../words";

const INK = "currentColor";
const CLAY = "var(--student)";
const BRASS = "var(--color-accent)";

/** How to film a swing so that it can be measured: from the front, and along the line. */
export function FilmingCard({ hand, folded = false, only }: { hand: Hand; folded?: boolean; only?: View }) {
  return (
    <details className="plate mb-4 p-3" open={!folded}>
      <summary className="cursor-pointer font-semibold">How to film it</summary>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {only !== "down_the_line" && (
          <figure>
            <Plan view="face_on" hand={hand} />
            <figcaption className="text-sm">
              <strong>From the front.</strong> Square to your toes, level with your belt.
            </figcaption>
          </figure>
        )}
        {only !== "face_on" && (
          <figure>
            <Plan view="down_the_line" hand={hand} />
            <figcaption className="text-sm">
              <strong>Along the line.</strong> Behind you on the line of your hands, looking at the target.
            </figcaption>
          </figure>
        )}
      </div>
      <ul className="mt-2 list-disc pl-5 text-sm">
        <li>Phone on a stand or a bag, about 4 to 5 big steps away, at hip height, upright or sideways.</li>
        <li>All of you and the club in the picture, at the top and at the finish.</li>
        {!only && (
          <>
            <li>A stick or a club along your toes, and one more toward the target if you have it.</li>
            <li>Something of known length on the floor: a stick of 122 cm, or a mat you have measured.</li>
            <li>
              No room there? Facing your back (back-on), or from the target’s side (up the line), tells much
              of it too: say which.
            </li>
          </>
        )}
        <li>Slow motion if your phone has it; stand still for a moment before you start.</li>
      </ul>
    </details>
  );
}

/** The place seen from above: feet, ball, stick, target and where the phone stands. */
function Plan({ view, hand }: { view: "face_on" | "down_the_line"; hand: Hand }) {
  const front = view === "face_on";
  const left = hand === "left"; // the target lies on the other side
  return (
    <svg
      viewBox="0 0 220 150"
      className="block w-full rounded bg-base-200"
      role="img"
      aria-label={
        front
          ? "From above: the phone stands in front of the player, square to the toes, 4 to 5 steps away."
          : "From above: the phone stands behind the player on the line of the hands, looking at the target."
      }
    >
      <g transform={left ? "translate(220 0) scale(-1 1)" : undefined}>
        <g transform="translate(120 40)">
          <ellipse cx={-16} cy={0} rx={6} ry={13} fill={INK} transform="rotate(-8 -16 0)" />
          <ellipse cx={16} cy={0} rx={6} ry={13} fill={INK} transform="rotate(12 16 0)" />
          <line x1={-46} y1={19} x2={46} y2={19} stroke={CLAY} strokeWidth={3} />
          <circle cx={4} cy={38} r={4} fill="#fff" stroke={INK} />
          <path d="M60 38h30m-8 -5l8 5l-8 5" stroke={INK} fill="none" strokeWidth={1.5} />
        </g>
        {front ? (
          <g>
            <path d="M120 128L84 60M120 128L156 60" stroke={BRASS} strokeDasharray="4 3" />
            <rect x={112} y={126} width={16} height={9} rx={2} fill={INK} />
          </g>
        ) : (
          <g>
            <path d="M22 64L96 34M22 64L150 92" stroke={BRASS} strokeDasharray="4 3" />
            <rect x={12} y={56} width={9} height={16} rx={2} fill={INK} />
          </g>
        )}
      </g>
      <text x={left ? 26 : 194} y={70} fontSize={10} textAnchor="middle" fill={INK}>
        target
      </text>
    </svg>
  );
}
