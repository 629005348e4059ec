import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { bookQuery, modelsQuery } from "../../api/queries";
import type { Side } from "../benchState";
import { agreement, otherOptions } from "./twoModels";
import { useJudgement } from "./useJudgement";
import type { Judgement } from "./verdict";

const WORDS = {
  fault: "a fault",
  open: "open",
  none: "none",
  unseen: "not seen",
  "not asked": "no fault to it",
};

/** The same swing judged by another model: on how much they agree, where they do not, and why. */
export function OtherModel({ side, judgement }: { side: Side; judgement: Judgement }) {
  const models = useQuery(modelsQuery);
  const [other, setOther] = useState("");
  return (
    <details onToggle={(event) => !event.currentTarget.open && setOther("")}>
      <summary className="cursor-pointer border-b border-base-content/20 px-2 py-1 text-sm">
        Judge it by another model too
      </summary>
      <div className="border-b border-base-content/20 p-2 text-sm">
        <select
          className="select select-sm w-full"
          aria-label="The other model"
          value={other}
          onChange={(event) => setOther(event.target.value)}
        >
          <option value="">Which model</option>
          {models.data
            ?.filter(({ id }) => id !== judgement.model)
            .map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </select>
        {other && <Beside side={side} one={judgement} other={other} />}
      </div>
    </details>
  );
}

function Beside({ side, one, other }: { side: Side; one: Judgement; other: string }) {
  const book = useQuery(bookQuery);
  const { data, error } = useJudgement(side, other);
  if (error) return <p className="mt-2">It could not be judged by that model just now.</p>;
  if (!data || !book.data) return <p className="mt-2">Judging …</p>;
  const { same, all, differing } = agreement(one, data);
  const sides = otherOptions(book.data, one.model, other);
  return (
    <div className="mt-2" data-testid="two-models">
      <p className="font-semibold">
        {all === 0 ? "Neither finds a fault." : `They agree on ${same} of ${all}.`}
      </p>
      {differing.length > 0 && (
        <table className="mt-1 w-full text-xs">
          <thead>
            <tr className="text-left">
              <th scope="col">Where they do not</th>
              <th scope="col">{one.name}</th>
              <th scope="col">{data.name}</th>
            </tr>
          </thead>
          <tbody>
            {differing.map(({ fault, name, one: first, other: second }) => (
              <tr key={fault} className="border-t border-base-content/20">
                <th scope="row" className="pr-2 text-left font-medium">
                  {name}
                </th>
                <td className="pr-2">{WORDS[first]}</td>
                <td>{WORDS[second]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {sides.length > 0 && (
        <>
          <p className="mt-2 text-xs font-semibold">They take different sides in:</p>
          <ul className="text-xs">
            {sides.map((each) => (
              <li key={each.dispute} title={each.question}>
                {each.dispute}: {each.one} | {each.other}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
