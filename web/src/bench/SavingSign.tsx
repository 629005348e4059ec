import { CloudOff } from "lucide-react";
import { useBench } from "./benchContext";

/** Silent while all is kept; plain when it is not, or when there is something to be told. */
export function SavingSign() {
  const notice = useBench((bench) => bench.notice);
  const set = useBench((bench) => bench.set);
  return (
    <>
      {notice && (
        <span role="alert" className="flex items-center gap-2 text-sm">
          {notice}
          <button type="button" className="btn btn-xs" onClick={() => set({ notice: null })}>
            Understood
          </button>
        </span>
      )}
      <SavingState />
    </>
  );
}

function SavingState() {
  const states = [
    useBench((bench) => bench.sides.student?.saving),
    useBench((bench) => bench.sides.reference?.saving),
  ];
  if (states.includes("signed-out"))
    return (
      <span role="alert" className="text-sm">
        You are signed out. Your marks are kept in this browser;{" "}
        <a className="link" href="/sign-in">
          sign in
        </a>{" "}
        to save them.
      </span>
    );
  if (states.includes("offline"))
    return (
      <span role="alert" className="flex items-center gap-1.5 text-sm font-medium">
        <CloudOff size={16} aria-hidden /> No connection. Your marks are kept here and will be saved when it
        is back.
      </span>
    );
  return (
    <span className="text-xs opacity-80" role="status">
      {states.includes("saving") ? "Saving…" : "Saved"}
    </span>
  );
}
