import { Trouble } from "../parts/Trouble";
import type { HandIn } from "./useHandIn";

/** The end of a form that hands clips in: what went wrong, what was refused, and the button. */
export function HandInButton({ state, label, close }: { state: HandIn; label: string; close: () => void }) {
  if (state.refused.length)
    return (
      <div role="alert" className="plate border-l-4 border-l-brass p-3 text-sm">
        <p className="font-medium">The others are in. Not usable:</p>
        <ul className="my-1 list-disc pl-5">
          {state.refused.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        <button type="button" className="btn btn-sm" onClick={close}>
          Close
        </button>
      </div>
    );
  return (
    <>
      {state.error && <Trouble error={state.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={state.waiting || state.busy}>
        {label}
      </button>
    </>
  );
}
