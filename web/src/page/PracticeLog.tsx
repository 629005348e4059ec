import { day as dayWords } from "../parts/when";
import { today, weeks } from "./practice";
import type { Practised } from "./unsent";

const WEEKS = 4;
const DAYS = ["M", "T", "W", "T", "F", "S", "S"];

/** Four weeks of practice, a square a day: filled as far up the ladder as it went. */
export function PracticeLog({ practised }: { practised: Practised[] }) {
  const rows = weeks(WEEKS);
  const now = today();
  const of = (day: string) => practised.filter((each) => each.day === day);
  const days = new Set(practised.filter(({ day }) => day >= (rows[0]?.[0] ?? "")).map(({ day }) => day));
  return (
    <div>
      <p>
        Practised on <span className="num">{days.size}</span> {days.size === 1 ? "day" : "days"} of the last
        four weeks.
      </p>
      <table className="mt-2 w-full max-w-xs table-fixed border-separate border-spacing-1 text-center text-xs">
        <caption className="sr-only">Practice of the last four weeks</caption>
        <thead>
          <tr>
            {DAYS.map((letter, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the days of the week stay where they are
              <th key={i} scope="col" className="font-normal opacity-85">
                {letter}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((week) => (
            <tr key={week[0]}>
              {week.map((day) => {
                const done = of(day);
                const label = `${dayWords(day)}: ${done.map(({ name }) => name).join(", ") || "nothing"}`;
                return (
                  <td
                    key={day}
                    title={label}
                    className={`num h-9 rounded-sm border ${done.length ? "border-pine bg-pine text-paper" : "border-base-content/30"} ${day > now ? "opacity-40" : ""} ${day === now ? "outline-2 outline-brass outline-offset-1" : ""}`}
                  >
                    {Number(day.slice(-2))}
                    <span className="sr-only">{done.length > 0 && ` ${label}`}</span>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
