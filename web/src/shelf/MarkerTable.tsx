import type { Schemas } from "../api/client";
import { MARK_WORDS } from "../words";
import { counted, type Meaning, said } from "./markers";

/** A laboratory's markers, one a row, and what each stands for. */
export function MarkerTable(props: {
  markers: Schemas["MarkerSeen"][];
  meaning: Meaning;
  change: (meaning: Meaning) => void;
}) {
  const { markers, meaning, change } = props;
  const counts = counted(meaning);
  return (
    <table className="table table-sm mb-3">
      <caption className="mb-1 text-left text-sm">
        What each marker stands for. Two of one mark, such as on either side of a knee, give its middle.
      </caption>
      <thead className="text-base-content">
        <tr>
          <th scope="col">Marker</th>
          <th scope="col">Seen</th>
          <th scope="col">Stands for</th>
        </tr>
      </thead>
      <tbody>
        {markers.map(({ label, seen }) => {
          const mark = meaning.marks[label] ?? "";
          const together = counts.get(mark) ?? 0;
          return (
            <tr key={label}>
              <th scope="row" className="max-w-28 truncate font-medium" title={label}>
                {label}
              </th>
              <td className="num">{Math.floor(seen * 100)} %</td>
              <td>
                <select
                  className="select select-sm w-full"
                  aria-label={`${label} stands for`}
                  value={mark}
                  onChange={(event) => change(said(meaning, label, event.target.value))}
                >
                  <option value="">Nothing here</option>
                  {Object.entries(MARK_WORDS).map(([name, words]) => (
                    <option key={name} value={name}>
                      {words}
                    </option>
                  ))}
                </select>
                {mark && together > 1 && <span className="text-xs">one of {together}</span>}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
