import type { Schemas } from "../api/client";
import { day } from "../parts/when";
import { FilmingCard } from "../send/FilmingCard";
import { type Hand, VIEW_WORDS } from "../words";

/** When to film again, from where, and how. */
export function WhatNext({ focus, hand }: { focus: Schemas["FocusSent"]; hand: Hand }) {
  const view = focus.drills.find((drill) => drill.view)?.view;
  const shows = focus.drills.find((drill) => drill.camera_shows)?.camera_shows;
  return (
    <section className="mt-6">
      <h2 className="text-lg font-bold">What next</h2>
      <p className="mt-1">
        Film again{focus.goal?.by ? ` by ${day(focus.goal.by)}` : " in two weeks"}
        {view ? `, ${VIEW_WORDS[view].toLowerCase()}` : ""}.{shows ? ` ${shows}` : ""}
      </p>
      <div className="mt-3">
        <FilmingCard hand={hand} folded />
      </div>
    </section>
  );
}
