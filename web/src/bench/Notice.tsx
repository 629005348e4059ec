import { useEffect } from "react";
import { useBench } from "./benchContext";

const READ_MS = 12_000;

/** What the bench has to tell, over the sky of the stages: until it is understood, or long enough to be read. */
export function Notice() {
  const notice = useBench((bench) => bench.notice);
  const set = useBench((bench) => bench.set);
  useEffect(() => {
    if (!notice) return;
    const timer = window.setTimeout(() => set({ notice: null }), READ_MS);
    return () => window.clearTimeout(timer);
  }, [notice, set]);
  if (!notice) return null;
  return (
    <div
      role="alert"
      className="absolute top-10 left-1/2 z-20 flex w-max max-w-[90%] -translate-x-1/2 items-center gap-2 rounded-sm border border-brass bg-base-100 px-3 py-1.5 text-sm shadow-lg"
    >
      {notice}
      <button type="button" className="btn btn-xs" onClick={() => set({ notice: null })}>
        Understood
      </button>
    </div>
  );
}
