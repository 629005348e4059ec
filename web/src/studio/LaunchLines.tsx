import { number, type Units, unitSign } from "../units";
import { changedWords, columnWords, isSigned, type Ladder } from "./ladderWords";
import type { Looked } from "./launchTable";

/** The table's lines as shots, each put to a try. */
export function LaunchLines(props: {
  looked: Looked;
  ladder: Ladder;
  units: Units;
  tries: Record<string, string>;
  put: (line: number, id: string) => void;
}) {
  const { looked, ladder, units, tries, put } = props;
  const columns = looked.found;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
    <section className="mb-3 overflow-x-auto" tabIndex={0} aria-label="The shots as they are understood">
      <table className="table table-sm">
        <thead className="text-base-content">
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Shot of</th>
            {columns.map((column) => (
              <th scope="col" key={column.column} className="text-xs whitespace-normal">
                {columnWords(column)}, {unitSign(column.unit, units)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {looked.lines.map(({ line, at, values }) => (
            <tr key={line}>
              <th scope="row" className="num font-medium">
                {line}
                {at && <span className="block text-xs font-normal">{at.slice(0, 8)}</span>}
              </th>
              <td>
                <select
                  className="select select-sm w-36"
                  aria-label={`Line ${line} is the shot of`}
                  value={tries[line] ?? ""}
                  onChange={(event) => put(line, event.target.value)}
                >
                  <option value="">no try</option>
                  {ladder.tries.map((each, place) => (
                    <option key={each.id} value={each.id}>
                      {place + 1}: {changedWords(each.changed)}
                    </option>
                  ))}
                </select>
              </td>
              {columns.map((column) => {
                const found = values.find((each) => each.column === column.column);
                return (
                  <td key={column.column} className="num text-right">
                    {found ? number(found.value, column.unit, units, isSigned(column)) : ""}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
