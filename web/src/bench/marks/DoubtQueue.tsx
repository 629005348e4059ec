import { useQuery } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { useState } from "react";
import { doubtsQuery } from "../../api/queries";
import { MARK_WORDS } from "../../words";
import { useBench, useBenchStore } from "../benchContext";
import { markAt, type Side, type SideState } from "../benchState";
import { useDoing } from "../commands/doings";
import { gapsOf, useTracks } from "./tracks";

interface Row {
  key: string;
  clipId: string;
  name: string;
  frame: number;
  why: string;
  sigmas: number | null; // null: a track that stopped and asks
}

const SHOWN = 5;

/** Marks to look at again, worst first: those that disagree with something, and where a track stopped. */
export function DoubtQueue({ side, state }: { side: Side; state: SideState }) {
  const bench = useBenchStore();
  const kept = useBench((each) => each.kept);
  const [all, setAll] = useState(false);
  const rows = useDoubts(state).filter((row) => !kept.includes(row.key));
  const go = (row: Row) => {
    const { show, goTo, set, sides, wanted } = bench.getState();
    show(side, row.clipId);
    goTo(side, row.frame);
    const now = sides[side];
    const group = wanted.find((mark) => mark.name === row.name)?.group;
    const placed = row.sigmas !== null && now !== undefined;
    set({
      active: side,
      round: false,
      ...(group ? { group } : {}),
      tool: placed ? null : row.name,
      selected: placed ? row.name : null,
    });
  };
  useDoing("doubts", () => (rows[0] ? go(rows[0]) : false));
  if (!rows.length) return null;
  return (
    <section aria-label={`Doubts, ${side}`} className="plate grid gap-0.5 p-1.5 text-xs">
      <h2 className="flex items-baseline gap-2 text-sm font-semibold">
        Look again <span className="num text-xs font-normal">{rows.length}</span>
        <kbd className="num ml-auto text-xs font-normal opacity-70">D</kbd>
      </h2>
      <ol className="grid gap-0.5">
        {(all ? rows : rows.slice(0, SHOWN)).map((row) => (
          <li key={row.key} className="flex items-start gap-1">
            <button
              type="button"
              className="min-w-0 flex-1 rounded-sm px-1 text-left hover:bg-brass/20"
              onClick={() => go(row)}
            >
              <b>{MARK_WORDS[row.name]}</b> <span className="num">{row.frame}</span>: {row.why}
              {row.sigmas !== null && <span className="num opacity-70"> ({row.sigmas.toFixed(0)} σ)</span>}
            </button>
            <button
              type="button"
              className="btn btn-xs btn-square"
              aria-label={`Keep the ${MARK_WORDS[row.name]?.toLowerCase()} on frame ${row.frame} as it is`}
              title="It is right: keep it"
              onClick={() => bench.getState().set({ kept: [...kept, row.key] })}
            >
              <Check size={12} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      {rows.length > SHOWN && (
        <button type="button" className="link justify-self-start" onClick={() => setAll(!all)}>
          {all ? "The worst alone" : `All ${rows.length}`}
        </button>
      )}
    </section>
  );
}

function useDoubts(state: SideState): Row[] {
  const versions = Object.values(state.views)
    .map((clip) => clip.version)
    .join(" ");
  const one = state.pairing?.one_swing ?? "";
  const found = useQuery(doubtsQuery(state.swing.id, `${versions} ${one}`)).data ?? [];
  const { stale, tracks } = useTracks(state);
  const doubted: Row[] = found.map(({ clip_id, name, frame, why, sigmas }) => {
    const mark = clip_id === state.clip.id ? markAt(state, name, frame) : undefined;
    const place = mark ? `${mark.x.toFixed(0)} ${mark.y.toFixed(0)}` : "";
    return { key: `${clip_id} ${name} ${frame} ${place}`, clipId: clip_id, name, frame, why, sigmas };
  });
  if (stale) return doubted;
  const stopped: Row[] = tracks.flatMap((track) =>
    gapsOf(track, state.clip.frame_times_s).map(([first, last]) => ({
      key: `${state.clip.id} ${track.name} ${first}-${last}`,
      clipId: state.clip.id,
      name: track.name,
      frame: Math.round((first + last) / 2),
      why: `not followed from ${first} to ${last}: mark it here`,
      sigmas: null,
    })),
  );
  return [...doubted, ...stopped];
}
