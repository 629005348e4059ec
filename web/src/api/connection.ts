import { create } from "zustand";

/** Whether the server can be reached, as far as is known. */
export const useConnection = create<{ lost: boolean }>(() => ({ lost: !navigator.onLine }));

const ASK_MS = 3000;
let asking: number | undefined;

/** A request found nobody: say so, and ask now and then until somebody is there. */
export function connectionLost(): void {
  useConnection.setState({ lost: true });
  if (asking !== undefined) return;
  asking = window.setInterval(() => {
    fetch("/healthz", { cache: "no-store" })
      .then((answer) => answer.ok && connectionBack())
      .catch(() => undefined);
  }, ASK_MS);
}

function connectionBack(): void {
  window.clearInterval(asking);
  asking = undefined;
  useConnection.setState({ lost: false });
  window.dispatchEvent(new Event(BACK));
}

/** Told on the window when the server can be reached again. */
export const BACK = "tropometer:back";

window.addEventListener("offline", connectionLost);
window.addEventListener("online", connectionBack);
