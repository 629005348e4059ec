import { type FormEvent, useState } from "react";
import type { Decision } from "./choices";
import type { Finding } from "./verdict";

const WORDS = { accepted: "Accepted", rejected: "Rejected", added: "Added by eye" };

interface Props {
  finding: Finding;
  isPinned: boolean;
  sent: boolean; // the lesson has gone: what it is about stands
  decide: (decision: Decision, reason?: string) => void;
  pin: () => void;
}

/** What the instructor makes of a finding: accept it, reject it with the reason, work on it. */
export function Decide({ finding, isPinned, sent, decide, pin }: Props) {
  const [rejecting, setRejecting] = useState(false);
  const { decided } = finding;
  const reject = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    decide("rejected", String(new FormData(event.currentTarget).get("reason")).trim());
    setRejecting(false);
  };
  return (
    <div className="flex flex-col gap-1 px-2 pb-2 pl-8 text-xs">
      {decided && (
        <p>
          <b>{WORDS[decided.decision]}.</b> {decided.reason}
          {decided.changed && (
            <em> What is read has changed since: it was “{decided.verdict_then.replaceAll("_", " ")}”.</em>
          )}
        </p>
      )}
      {rejecting ? (
        <form onSubmit={reject} className="flex gap-1">
          <input
            // biome-ignore lint/a11y/noAutofocus: it has just been asked for
            autoFocus
            className="input input-xs min-w-0 flex-1"
            name="reason"
            aria-label={`Why “${finding.name}” is rejected`}
            placeholder="Why, in a few words"
            maxLength={300}
          />
          <button type="submit" className="btn btn-xs">
            Reject
          </button>
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => setRejecting(false)}>
            Cancel
          </button>
        </form>
      ) : (
        <div className="flex flex-wrap gap-1">
          {decided ? (
            <button type="button" className="btn btn-xs" onClick={() => decide(null)}>
              {decided.decision === "added" ? "Take out again" : "Let the readings speak"}
            </button>
          ) : (
            <>
              <button type="button" className="btn btn-xs" onClick={() => decide("accepted")}>
                Accept
              </button>
              <button type="button" className="btn btn-xs" onClick={() => setRejecting(true)}>
                Reject
              </button>
            </>
          )}
          {finding.active && (
            <button
              type="button"
              className="btn btn-xs"
              aria-pressed={isPinned}
              disabled={sent}
              onClick={pin}
            >
              {isPinned ? "Take the pin out" : "Work on it"}
            </button>
          )}
        </div>
      )}
      {finding.unproved && <p className="opacity-85">Not proved on drawn golfers: {finding.unproved}</p>}
    </div>
  );
}
