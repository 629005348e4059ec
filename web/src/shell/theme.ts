import { create } from "zustand";
import { keep } from "../parts/keep";

/** How the screens look: as the system says, or by hand. */
export const LOOKS = { system: "As the system", day: "Day", dusk: "Dusk" } as const;
export type Look = keyof typeof LOOKS;

const KEY = "tropometer.look";
const dark = window.matchMedia("(prefers-color-scheme: dark)");

const kept = (): Look => {
  const stored = localStorage.getItem(KEY);
  return stored && stored in LOOKS ? (stored as Look) : "system";
};

export const useLook = create<{ look: Look }>(() => ({ look: kept() }));

function show(look: Look): void {
  const dusk = look === "dusk" || (look === "system" && dark.matches);
  document.documentElement.dataset.theme = dusk ? "bench-dusk" : "bench-day";
}

export function chooseLook(look: Look): void {
  keep(localStorage, KEY, look);
  useLook.setState({ look });
  show(look);
}

/** Shows the chosen look, and follows the system for as long as that is the choice. */
export function keepLook(): void {
  show(kept());
  dark.addEventListener("change", () => show(useLook.getState().look));
}
