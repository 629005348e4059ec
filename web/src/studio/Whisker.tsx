import type { TapeScale } from "../drawn/tapeScale";

const WIDTH = 120;
const HEIGHT = 18;
const MIDDLE = HEIGHT / 2;

/** A try's value on its column's tape, its whisker about it, and the base line's mean as a cord. */
export function Whisker(props: {
  value: number;
  u95: number;
  provisional: boolean;
  scale: TapeScale;
  base?: number;
}) {
  const { value, u95, provisional, scale, base } = props;
  const x = (core: number) => scale.at(core) * WIDTH;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="xMinYMid"
      className="block h-[18px] w-full min-w-24"
      aria-hidden="true"
    >
      <path d={`M0 ${HEIGHT - 1}H${WIDTH}`} stroke="currentColor" strokeOpacity={0.25} />
      {base !== undefined && (
        <path d={`M${x(base)} 0V${HEIGHT}`} stroke="currentColor" strokeOpacity={0.55} strokeWidth={1.2} />
      )}
      <path
        d={`M${x(value - u95)} ${MIDDLE}H${x(value + u95)}`}
        stroke="var(--student)"
        strokeWidth={1.6}
        strokeDasharray={provisional ? "3 2" : undefined}
      />
      <circle
        cx={x(value)}
        cy={MIDDLE}
        r={3.6}
        fill={provisional ? "none" : "var(--student)"}
        stroke="var(--student)"
        strokeWidth={1.2}
      />
    </svg>
  );
}
