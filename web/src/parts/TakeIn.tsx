import { Trouble } from "./Trouble";

/** The end of a form that sends a clip: what went wrong, how far it is, and the button. */
export function TakeIn({
  share,
  error,
  label = "Take in",
}: {
  share: number | null;
  error: Error | null;
  label?: string;
}) {
  return (
    <>
      {error && <Trouble error={error} />}
      {share !== null && (
        <p className="my-2 flex items-center gap-2 text-sm">
          <progress
            className="progress progress-accent"
            value={share}
            max={1}
            aria-label="Sending the clip"
          />
          <span className="num">{Math.round(share * 100)} %</span>
        </p>
      )}
      <button type="submit" className="btn btn-primary w-full" disabled={share !== null}>
        {label}
      </button>
    </>
  );
}
