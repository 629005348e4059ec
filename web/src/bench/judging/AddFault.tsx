import { useQuery } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { bookQuery } from "../../api/queries";
import { momentWords } from "../../words";
import type { Decision } from "./choices";
import type { Finding, Judgement } from "./verdict";

interface Props {
  judgement: Judgement;
  decide: (
    finding: Pick<Finding, "fault" | "name" | "verdict" | "certainty">,
    decision: Decision,
    reason: string,
  ) => void;
}

/** A fault that the instructor sees and no reading shows. */
export function AddFault({ judgement, decide }: Props) {
  const book = useQuery(bookQuery);
  const there = new Set(judgement.findings.filter(({ active }) => active).map(({ fault }) => fault));
  const faults = book.data?.faults.filter(({ id }) => !there.has(id)) ?? [];
  const add = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const fault = faults.find(({ id }) => id === form.get("fault"));
    if (!fault) return;
    const judged = judgement.findings.find((each) => each.fault === fault.id);
    const said = { verdict: judged?.verdict ?? "cannot_be_seen", certainty: judged?.certainty ?? 0 } as const;
    decide({ fault: fault.id, name: fault.name, ...said }, "added", String(form.get("reason")).trim());
    event.currentTarget.reset();
  };
  return (
    <details>
      <summary className="cursor-pointer border-b border-base-content/20 px-2 py-1 text-sm">
        Add what you see and no reading shows
      </summary>
      <form onSubmit={add} className="flex flex-col gap-1 border-b border-base-content/20 p-2">
        <select className="select select-sm w-full" name="fault" aria-label="Fault" required defaultValue="">
          <option value="" disabled>
            Which fault
          </option>
          {faults.map(({ id, name, moment }) => (
            <option key={id} value={id}>
              {name} ({momentWords(moment).toLowerCase()})
            </option>
          ))}
        </select>
        <div className="flex gap-1">
          <input
            className="input input-sm min-w-0 flex-1"
            name="reason"
            aria-label="What you saw"
            placeholder="What you saw"
            maxLength={300}
          />
          <button type="submit" className="btn btn-sm">
            Add
          </button>
        </div>
      </form>
    </details>
  );
}
