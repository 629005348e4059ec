import { type Units, withError } from "../../units";
import { MARK_WORDS, momentWords } from "../../words";
import { useBench } from "../benchContext";
import { rivalOn } from "../benchState";

const SIDES = ["student", "reference"] as const;

/** What is seen from above in figures: where each mark lies along the line and toward the ball, of both swings. */
export function FloorTable({ units }: { units: Units }) {
  const sides = useBench((bench) => bench.sides);
  return (
    <section
      className="flex min-h-0 flex-1 gap-6 overflow-y-auto px-2"
      aria-label="From above in figures"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
      tabIndex={0}
      data-scrolls
    >
      {SIDES.map((side) => {
        const state = rivalOn({ sides }, side);
        return (
          state && (
            <table key={side} className="h-fit flex-1 text-left text-xs">
              <caption className="py-1 text-left font-semibold">{state.swing.title}</caption>
              <thead>
                <tr>
                  <th scope="col">Mark</th>
                  <th scope="col" className="text-right">
                    Toward the target
                  </th>
                  <th scope="col" className="text-right">
                    Toward the ball
                  </th>
                </tr>
              </thead>
              <tbody className="num">
                {state.floor.marks.map((mark) => (
                  <tr key={`${mark.name} ${mark.at}`}>
                    <td className="font-sans">
                      {MARK_WORDS[mark.name]}, {momentWords(mark.at).toLowerCase()}
                    </td>
                    <td className="text-right">{withError(mark.t, mark.u95_t, "m", units, true)}</td>
                    <td className="text-right">{withError(mark.b, mark.u95_b, "m", units, true)}</td>
                  </tr>
                ))}
                {state.floor.marks.length === 0 && (
                  <tr>
                    <td colSpan={3} className="font-sans">
                      Mark heels and toes at address, and set the mat's corners.
                    </td>
                  </tr>
                )}
              </tbody>
            </table>
          )
        );
      })}
    </section>
  );
}
