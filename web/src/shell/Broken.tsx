import { useRouteError } from "react-router";
import { useConnection } from "../api/connection";
import { usePageTitle } from "../parts/usePageTitle";

/** A screen that broke says so, and what is safe. */
export function Broken() {
  const error = useRouteError();
  const lost = useConnection((connection) => connection.lost);
  // A piece of the screens that is no longer there: the server has a newer build.
  const outdated = error instanceof Error && /module script|dynamically imported module/i.test(error.message);
  usePageTitle(lost ? "No connection" : outdated ? "A new version is here" : "This screen broke");
  if (lost)
    return (
      <main className="mx-auto max-w-lg p-8">
        <h1 className="text-2xl font-semibold">No connection</h1>
        <p className="my-3">
          This screen was not opened before the connection went. What you did is kept and sent when it is
          back.
        </p>
        <button type="button" className="btn btn-primary" onClick={() => window.history.back()}>
          Back to where you were
        </button>
      </main>
    );
  if (outdated)
    return (
      <main className="mx-auto max-w-lg p-8">
        <h1 className="text-2xl font-semibold">A new version is here</h1>
        <p className="my-3">
          Tropometer was renewed since you opened it. What you did is kept; load the page anew to go on.
        </p>
        <button type="button" className="btn btn-primary" onClick={() => window.location.reload()}>
          Load anew
        </button>
      </main>
    );
  return (
    <main className="mx-auto max-w-lg p-8">
      <h1 className="text-2xl font-semibold">This screen broke</h1>
      <p className="my-3">
        What you did is kept. Load the page anew; if it breaks again, tell whoever runs this server what
        stands here:
      </p>
      <p className="num my-3 text-sm break-words">{error instanceof Error ? error.message : String(error)}</p>
      <button type="button" className="btn btn-primary" onClick={() => window.location.reload()}>
        Load anew
      </button>
    </main>
  );
}
