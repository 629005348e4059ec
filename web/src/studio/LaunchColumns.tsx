import { type Looked, SIDES, said, type Use, type Uses, usesOf } from "./launchTable";

/** The columns of a launch monitor's table, one a row, and what each is. */
export function LaunchColumns({ looked, change }: { looked: Looked; change: (uses: Uses) => void }) {
  const uses = usesOf(looked);
  const put = (name: string, use: Use, anew: Partial<Use>) =>
    change({ ...uses, [name]: { ...use, ...anew } });
  return (
    <table className="table table-sm mb-3">
      <caption className="mb-1 text-left text-sm">
        What each column is. A letter behind a number (4.1 R) says its side itself.
      </caption>
      <thead className="text-base-content">
        <tr>
          <th scope="col">Column</th>
          <th scope="col">Holds</th>
          <th scope="col">Is</th>
        </tr>
      </thead>
      <tbody>
        {looked.columns.map(({ name, samples, use }) => {
          const field = looked.fields.find((each) => each.field === use?.field);
          return (
            <tr key={name}>
              <th scope="row" className="max-w-40 break-words font-medium">
                {name}
              </th>
              <td className="num max-w-28 truncate text-xs">{samples.filter(Boolean).join("  ")}</td>
              <td>
                <div className="flex flex-wrap gap-1">
                  <select
                    className="select select-sm w-auto"
                    aria-label={`${name} is`}
                    value={use?.field ?? ""}
                    onChange={(event) => change(said(looked, name, event.target.value))}
                  >
                    <option value="">Nothing here</option>
                    {looked.fields.map((each) => (
                      <option key={each.field} value={each.field}>
                        {each.words}
                      </option>
                    ))}
                  </select>
                  {use && field && field.units.length > 1 && (
                    <select
                      className="select select-sm w-auto"
                      aria-label={`${name} is in`}
                      value={use.unit}
                      onChange={(event) => put(name, use, { unit: event.target.value })}
                    >
                      {field.units.map((unit) => (
                        <option key={unit} value={unit}>
                          {unit}
                        </option>
                      ))}
                    </select>
                  )}
                  {use && field?.sided && (
                    <select
                      className="select select-sm w-auto"
                      aria-label={`${name}: which side is plus`}
                      value={use.positive}
                      onChange={(event) => put(name, use, { positive: event.target.value as "right" })}
                    >
                      {Object.entries(SIDES).map(([side, words]) => (
                        <option key={side} value={side}>
                          {words}
                        </option>
                      ))}
                    </select>
                  )}
                </div>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
