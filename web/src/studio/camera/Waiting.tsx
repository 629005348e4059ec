import { useStore } from "zustand";
import { when } from "../../parts/when";
import type { TrySender } from "./trySender";

/** Tries that the server does not have yet. */
export function Waiting({ sender, hour }: { sender: TrySender; hour: string }) {
  const { waiting, share, trouble } = useStore(sender.store);
  const refused = waiting.filter((each) => each.refused);
  const coming = waiting.length - refused.length;
  const elsewhere = waiting.filter((each) => each.hour !== hour).length;
  const inPage = waiting.some(({ inPageOnly }) => inPageOnly);
  return (
    <div className="mt-2 text-sm" role="status" aria-label="Tries on their way">
      {coming > 0 && (
        <p>
          {coming === 1 ? "One clip is" : `${coming} clips are`} on the way to the server:{" "}
          <span className="num">{Math.round(share * 100)} %</span>.{" "}
          {inPage
            ? "The disk of this machine is full: leave this page open until they are there."
            : "They are kept on this machine until they are there."}
          {trouble && ` ${trouble} Trying again.`}
          {elsewhere > 0 && ` ${elsewhere} of another hour.`}
        </p>
      )}
      {refused.map((each) => (
        <p key={each.id} className="flex flex-wrap items-center gap-2">
          <span className="flex-1">
            The try of {when(new Date(each.at).toISOString())} was not taken: {each.refused}
          </span>
          <button type="button" className="btn btn-xs" onClick={() => void sender.again(each)}>
            Send it again
          </button>
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => void sender.forget(each.id)}>
            Forget it
          </button>
        </p>
      ))}
    </div>
  );
}
