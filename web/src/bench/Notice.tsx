import { useBench } from "./benchContext";

/** What the bench has to tell, until it is understood. */
export function Notice() {
  const notice = useBench((bench) => bench.notice);
  const set = useBench((bench) => bench.set);
  if (!notice) return null;
  return (
    <span role="alert" className="flex items-center gap-2 text-sm">
      {notice}
      <button type="button" className="btn btn-xs" onClick={() => set({ notice: null })}>
        Understood
      </button>
    </span>
  );
}
