import type { Schemas } from "../../api/client";
import { INK } from "../../drawn/ink";
import { tapeScale } from "../../drawn/tapeScale";
import { nameOf, readWords } from "../../lesson/goalWords";
import { number, type Units, unitSign } from "../../units";
import { type Hand, momentWords } from "../../words";
import type { WalkClip } from "../player/SceneOverlay";
import type { TapeShown } from "../score";

const [DUSK, PAPER, BRASS] = ["#10201D", "#F6F3EA", "#D8AA4C"];
const [PAD, ROW, TAPE] = [8, 17, 22];
export const TAPE_HIGH = 2 * ROW + TAPE + 20;

type Tape = Schemas["WalkTape"];

/** The tapes of the clips on the stages of the reading that is looked into; none where none of them was sure. */
export function tapesOf(shown: TapeShown, clips: WalkClip[]): { clip: WalkClip; tape: Tape }[] {
  return clips.flatMap((clip) => {
    const tape = clip.tapes?.find(({ reading, at }) => reading === shown?.reading && at === shown?.at);
    return tape ? [{ clip, tape }] : [];
  });
}

/** A reading's tape as it was looked into: the band, where each swing stands, and how sure that is. */
export function TapeLayer(props: {
  tapes: { clip: WalkClip; tape: Tape }[];
  width: number;
  units: Units;
  hand: Hand;
}) {
  const { tapes, width, units, hand } = props;
  const [first] = tapes;
  if (!first) return null;
  const { reading, at, unit } = first.tape;
  const band = tapes.find(({ tape }) => tape.low !== null || tape.high !== null)?.tape;
  const ends = tapes.flatMap(({ tape }) => [tape.value - tape.u95, tape.value + tape.u95]);
  const scale = tapeScale([...ends, ...[band?.low, band?.high].filter((end) => end != null)], unit, units);
  const x = (value: number) => PAD + scale.at(value) * (width - 2 * PAD);
  const tickX = (tick: number) => PAD + ((tick - scale.low) / (scale.high - scale.low)) * (width - 2 * PAD);
  const [low, high] = [
    band?.low == null ? PAD : x(band.low),
    band?.high == null ? width - PAD : x(band.high),
  ];
  const top = 2 * ROW + 2;
  const amount = ({ value, u95 }: Tape) =>
    `${readWords(reading, value, unit, units, hand)} (± ${number(u95, unit, units)} ${unitSign(unit, units)})`;
  const whose = first.clip.whose === "student" ? "" : "reference: "; // the student's own may be too unsure
  return (
    <g data-tape={`${reading} ${at}`}>
      <rect width={width} height={TAPE_HIGH} fill={DUSK} />
      <text x={PAD} y={ROW - 3} fontSize={12} fill={PAPER}>
        {`${momentWords(at)}: ${nameOf(reading, hand)}`}
      </text>
      <text x={PAD} y={2 * ROW - 4} fontSize={12} fill={PAPER}>
        {whose + amount(first.tape)}
      </text>
      <rect
        x={PAD}
        y={top}
        width={width - 2 * PAD}
        height={TAPE}
        fill="none"
        stroke={PAPER}
        strokeOpacity={0.5}
      />
      {band && (
        <rect x={low} y={top} width={Math.max(high - low, 1)} height={TAPE} fill={BRASS} fillOpacity={0.45} />
      )}
      {scale.ticks.map((tick) => (
        <g key={tick}>
          <line
            x1={tickX(tick)}
            x2={tickX(tick)}
            y1={top}
            y2={top + 7}
            stroke={PAPER}
            strokeWidth={tick ? 1 : 2}
          />
          <text className="num" x={tickX(tick)} y={top + 18} fontSize={9} fill={PAPER} textAnchor="middle">
            {tick < 0 ? `−${-tick}` : tick}
          </text>
        </g>
      ))}
      {tapes.map(({ clip, tape }, row) => {
        const y = top + TAPE + 5 + row * 7;
        return (
          <g key={clip.id} stroke={INK[clip.whose]} fill={INK[clip.whose]}>
            <line x1={x(tape.value)} x2={x(tape.value)} y1={top - 1} y2={y} strokeWidth={2} />
            <line x1={x(tape.value - tape.u95)} x2={x(tape.value + tape.u95)} y1={y} y2={y} strokeWidth={2} />
          </g>
        );
      })}
    </g>
  );
}
