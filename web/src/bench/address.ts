import { useEffect } from "react";
import { useNavigate } from "react-router";
import { VIEWS } from "../words";
import type { BenchState, Side, SideState } from "./benchState";
import type { Bench } from "./benchStore";
import { isStation, type Station } from "./stations/stations";

/** Where on a swing an address leads: what it does not say is left as it is. */
export interface Place {
  station?: Station;
  view?: SideState["clip"]["view"];
  frame?: number;
  reading?: { reading: string; at: string } | null;
  beside?: string; // the swing that stands beside it
}

export function readPlace(search: string): Place {
  const said = new URLSearchParams(search);
  const place: Place = {};
  const station = said.get("station");
  if (isStation(station)) place.station = station;
  const view = VIEWS.find((each) => each === said.get("view"));
  if (view) place.view = view;
  const frame = said.get("frame");
  if (frame !== null && /^\d{1,7}$/.test(frame)) place.frame = Number(frame);
  const [reading, at] = (said.get("reading") ?? "").split(".");
  if (reading && at) place.reading = { reading, at };
  const beside = said.get("beside");
  if (beside) place.beside = beside;
  return place;
}

export function placeSearch({ station, view, frame, reading, beside }: Place): string {
  const said = new URLSearchParams();
  if (station) said.set("station", station);
  if (view) said.set("view", view);
  if (frame !== undefined) said.set("frame", String(frame));
  if (reading) said.set("reading", `${reading.reading}.${reading.at}`);
  if (beside) said.set("beside", beside);
  return `?${said}`;
}

const mainOf = ({ sides }: BenchState): Side => (sides.student ? "student" : "reference");

function placeOf(state: BenchState): Place {
  const main = mainOf(state);
  const now = state.sides[main];
  return {
    station: state.station,
    view: now?.clip.view,
    frame: now && state.stands[main].frame,
    reading: state.focus,
    beside: main === "student" ? state.sides.reference?.swing.id : undefined,
  };
}

/** Goes where an address leads. */
function goToPlace(bench: Bench, place: Place): void {
  const { goToStation, show, goTo, set, sides, station, focus } = bench.getState();
  if (place.station && place.station !== station) goToStation(place.station);
  const main = mainOf(bench.getState());
  const clip = sides[main]?.swing.clips.find((each) => each.view === place.view && each.state === "ready");
  if (clip) show(main, clip.id);
  if (place.frame !== undefined) goTo(main, place.frame);
  const reading = place.reading ?? null;
  if (reading?.reading !== focus?.reading || reading?.at !== focus?.at) set({ focus: reading });
}

const REST_MS = 250;

/**
 * Keeps the address and the bench alike: a station is a step of the browser's history, frame, view and reading are
 * written when they rest, and Back, a reload or a copied link lead to where they say.
 */
export function useAddress(bench: Bench, open: boolean): void {
  const navigate = useNavigate();
  useEffect(() => {
    if (!open) return;
    const path = window.location.pathname;
    // Told by the browser itself: the router may leave out a place that is left before it is drawn.
    const follow = () => {
      if (window.location.pathname === path) goToPlace(bench, readPlace(window.location.search));
    };
    follow();
    window.addEventListener("popstate", follow);
    return () => window.removeEventListener("popstate", follow);
  }, [bench, open]);
  useEffect(() => {
    if (!open) return;
    let timer: number | undefined;
    const write = () => {
      window.clearTimeout(timer);
      const state = bench.getState();
      const next = placeSearch(placeOf(state));
      // On its way from one station to another the address is ahead of the bench, or behind it.
      if ((readPlace(window.location.search).station ?? state.station) !== state.station) return;
      // The router is not told: nothing that it shows has changed.
      if (next !== window.location.search) window.history.replaceState(window.history.state, "", next);
    };
    const stop = bench.subscribe((now, before) => {
      if (now.station !== before.station) {
        const here = readPlace(window.location.search).station;
        window.clearTimeout(timer);
        // Where the address has led there already, by Back, there is nothing to write.
        if (here !== now.station) navigate(placeSearch(placeOf(now)));
        return;
      }
      if (now.sides === before.sides && now.stands === before.stands && now.focus === before.focus) return;
      window.clearTimeout(timer);
      timer = window.setTimeout(write, REST_MS);
    });
    window.addEventListener("pagehide", write);
    return () => {
      window.clearTimeout(timer);
      stop();
      window.removeEventListener("pagehide", write);
    };
  }, [bench, open, navigate]);
}
