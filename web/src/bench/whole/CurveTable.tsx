import { fromImpact, type Units, withError } from "../../units";
import { PEG_WORDS, READING_WORDS, SIGNED } from "../../words";
import { useBench } from "../benchContext";
import { onOf, type Side, type SideState } from "../benchState";
import { timeFromImpact } from "../rule/pegLink";
import { type Course, useCourse } from "./useCourse";

const SIDES = ["student", "reference"] as const;

/** A reading's curve in figures: every frame on which it can be read, of both swings. */
export function CurveTable(props: { reading: string; units: Units; asked?: string[] }) {
  const { reading, units, asked = [reading] } = props;
  const student = useCourse("student", asked).found;
  const reference = useCourse("reference", asked).found;
  const sides = useBench((bench) => bench.sides);
  const found = { student, reference };
  return (
    <section
      className="flex min-h-0 flex-1 gap-6 overflow-y-auto px-2"
      aria-label={`${READING_WORDS[reading] ?? reading} in figures`}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
      tabIndex={0}
      data-scrolls
    >
      {SIDES.map((side) => {
        const state = sides[side];
        const course = found[side];
        return (
          state &&
          course && (
            <OneSide key={side} side={side} state={state} course={course} reading={reading} units={units} />
          )
        );
      })}
      {!student && !reference && <p className="p-2 text-sm">Measuring the swing…</p>}
    </section>
  );
}

function OneSide(props: { side: Side; state: SideState; course: Course; reading: string; units: Units }) {
  const { side, state, course, reading, units } = props;
  const goTo = useBench((bench) => bench.goTo);
  const { frames, curves } = course.course;
  const curve = curves.find((each) => each.reading === reading);
  const pegs = onOf(state).pegs;
  const own = course.course.clip_id === state.clip.id;
  return (
    <table className="h-fit flex-1 text-left text-xs">
      <caption className="py-1 text-left font-semibold">{state.swing.title}</caption>
      <thead>
        <tr>
          <th scope="col">Frame</th>
          <th scope="col">From impact</th>
          <th scope="col">Peg</th>
          <th scope="col" className="text-right">
            {READING_WORDS[reading] ?? reading}
          </th>
        </tr>
      </thead>
      <tbody className="num">
        {frames.map((frame, i) => {
          const value = curve?.values[i];
          const u95 = curve?.u95[i];
          if (!curve || value == null || u95 == null) return null;
          const peg = own ? pegs.find((each) => each.frame === frame) : undefined;
          return (
            <tr key={frame}>
              <td>
                {own ? (
                  <button type="button" className="link min-h-6 min-w-6" onClick={() => goTo(side, frame)}>
                    {frame}
                  </button>
                ) : (
                  frame
                )}
              </td>
              <td>{course.line ? fromImpact(timeFromImpact(course.line, frame)) : ""}</td>
              <td className="font-sans">{peg ? PEG_WORDS[peg.name] : ""}</td>
              <td className="text-right">{withError(value, u95, curve.unit, units, SIGNED.has(reading))}</td>
            </tr>
          );
        })}
        {!curve && (
          <tr>
            <td colSpan={4}>no curve yet</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
