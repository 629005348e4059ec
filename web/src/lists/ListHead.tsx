import { Search, SlidersHorizontal } from "lucide-react";
import { useEffect, useState } from "react";
import type { List } from "./useList";

const PAUSE_MS = 250;
const DAYS = [
  ["since", "From"],
  ["until", "to"],
] as const;

interface Choice {
  name: string; // in the address
  label: string;
  options: [value: string, words: string][]; // the first is what holds when nothing is chosen
}

/** Options as a list offers them: the first holds when the address says nothing. */
export function chosenFirst(options: readonly (readonly [string, string])[]): [string, string][] {
  return options.map(([value, words], i) => [i === 0 ? "" : value, words]);
}

interface Props {
  list: List;
  what: string;
  choices?: Choice[];
  more?: Choice[]; // those that are seldom made
  days?: boolean; // whether its rows can be those of some days
}

/** Finds, filters and orders a list. */
export function ListHead({ list, what, choices = [], more = [], days = false }: Props) {
  const { q, said } = list.wanted;
  const [text, setText] = useState(q);
  const [opened, setOpened] = useState(false);
  const { choose } = list;
  const seldom = [...more.map(({ name }) => name), ...(days ? DAYS.map(([name]) => name) : [])];
  const open = opened || seldom.some((name) => said(name) !== "");
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is typed is waited for
  useEffect(() => {
    if (text === q) return;
    const timer = window.setTimeout(() => choose("q", text), PAUSE_MS);
    return () => window.clearTimeout(timer);
  }, [text]);
  useEffect(() => {
    if (q === "") setText("");
  }, [q]);
  return (
    <search className="mb-3 flex flex-wrap items-center gap-2">
      <label className="input input-sm w-64 max-w-full">
        <Search size={14} aria-hidden />
        <input
          type="search"
          aria-label={`Find ${what}`}
          placeholder={`Find ${what}`}
          maxLength={100}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {choices.map((choice) => (
        <Choosing key={choice.name} choice={choice} list={list} />
      ))}
      {(more.length > 0 || days) && (
        <button
          type="button"
          className="btn btn-sm"
          aria-expanded={open}
          onClick={() => {
            setOpened(!open);
            if (open) list.clear(seldom);
          }}
        >
          <SlidersHorizontal size={14} aria-hidden /> {open ? "No more filters" : "More filters"}
        </button>
      )}
      {open && (
        <div className="flex w-full flex-wrap items-center gap-2">
          {more.map((choice) => (
            <Choosing key={choice.name} choice={choice} list={list} />
          ))}
          {days &&
            DAYS.map(([name, label]) => (
              <label key={name} className="flex items-center gap-1 text-sm">
                {label}
                <input
                  type="date"
                  className="input input-sm num w-36"
                  value={said(name)}
                  onChange={(event) => choose(name, event.target.value)}
                />
              </label>
            ))}
        </div>
      )}
    </search>
  );
}

function Choosing({ choice: { name, label, options }, list }: { choice: Choice; list: List }) {
  return (
    <select
      className="select select-sm w-auto"
      aria-label={label}
      value={list.wanted.said(name)}
      onChange={(event) => list.choose(name, event.target.value)}
    >
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </select>
  );
}
