import { useMutation, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { api, got, type Schemas } from "../../api/client";
import { hourQuery, lineQuery } from "../../api/queries";
import { Trouble } from "../../parts/Trouble";
import { done } from "../../shell/undo";
import { type Units, withError } from "../../units";
import { changedWords, columnWords, isSigned, type Ladder } from "../ladderWords";

/** Every ball that devices told of, the latest first, and which try it was. */
export function Strikes(props: { told: Schemas["HourLineOut"]; ladder: Ladder; units: Units }) {
  const { told, ladder, units } = props;
  const { id } = ladder;
  const queries = useQueryClient();
  const [sure, setSure] = useState("");
  const put = useMutation({
    mutationFn: ({ strike_id, try_id }: { strike_id: string; try_id: string | null }) =>
      got(
        api.PUT("/api/hours/{id}/strikes/{strike_id}", {
          params: { path: { id, strike_id } },
          body: { try_id },
        }),
      ),
    onSuccess: (now) => queries.setQueryData(hourQuery(id).queryKey, now),
    onSettled: () => queries.invalidateQueries({ queryKey: lineQuery(id).queryKey }),
  });
  const forget = useMutation({
    mutationFn: (strike_id: string) =>
      got(api.DELETE("/api/hours/{id}/strikes/{strike_id}", { params: { path: { id, strike_id } } })),
    onSuccess: (now) => queries.setQueryData(lineQuery(id).queryKey, now),
  });
  const say = (strike: Schemas["StrikeOut"], try_id: string | null) => {
    const before = strike.try_id;
    put.mutate(
      { strike_id: strike.id, try_id },
      {
        onSuccess: () =>
          done("Said whose strike it is.", () => put.mutate({ strike_id: strike.id, try_id: before })),
      },
    );
  };
  const taken = new Map(told.strikes.map((each) => [each.try_id, each.id]));
  const trouble = put.error ?? forget.error;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
    <section className="mt-2 max-h-72 overflow-auto" tabIndex={0} aria-label="Strikes">
      {trouble && <Trouble error={trouble} />}
      <table className="table table-xs [&_td]:px-1 [&_th]:px-1">
        <thead className="text-base-content">
          <tr>
            <th scope="col">Struck at</th>
            <th scope="col">Of try</th>
            <th scope="col">Felt</th>
            {told.columns.map((column) => (
              <th scope="col" key={column.column} className="max-w-24 leading-tight whitespace-normal">
                {columnWords(column)}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Forget</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {[...told.strikes].reverse().map((strike) => {
            const at = new Date(strike.struck_at).toLocaleTimeString(undefined, {
              timeStyle: "medium",
              hour12: false,
            });
            return (
              <tr key={strike.id}>
                <th scope="row" className="num font-medium whitespace-nowrap">
                  {at}
                </th>
                <td>
                  <select
                    className="select select-xs w-auto max-w-44"
                    aria-label={`The strike at ${at} is of`}
                    value={strike.try_id ?? ""}
                    onChange={(event) => say(strike, event.target.value || null)}
                  >
                    <option value="">no try</option>
                    {ladder.tries.map((each, place) => (
                      <option
                        key={each.id}
                        value={each.id}
                        disabled={taken.has(each.id) && taken.get(each.id) !== strike.id}
                      >
                        {place + 1}: {changedWords(each.changed)}
                      </option>
                    ))}
                  </select>
                </td>
                <td title={strike.felt_by}>{strike.felt_by ? "yes" : "no"}</td>
                {told.columns.map((column) => {
                  const value = strike.values.find((each) => each.column === column.column);
                  return (
                    <td key={column.column} className="num whitespace-nowrap">
                      {value
                        ? withError(value.value, value.u95, column.unit, units, isSigned(column))
                        : "not said"}
                    </td>
                  );
                })}
                <td>
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    onClick={() => (sure === strike.id ? forget.mutate(strike.id) : setSure(strike.id))}
                    onBlur={() => setSure("")}
                  >
                    {sure === strike.id ? "Forget it?" : <X size={14} aria-hidden />}
                    <span className="sr-only">Forget the strike at {at}</span>
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
