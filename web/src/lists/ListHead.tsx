import { Search } from "lucide-react";
import { useEffect, useState } from "react";
import type { List } from "./useList";

const PAUSE_MS = 250;

interface Choice {
  name: string; // in the address
  label: string;
  options: [value: string, words: string][]; // the first is what holds when nothing is chosen
}

/** Options as a list offers them: the first holds when the address says nothing. */
export function chosenFirst(options: readonly (readonly [string, string])[]): [string, string][] {
  return options.map(([value, words], i) => [i === 0 ? "" : value, words]);
}

/** Finds, filters and orders a list. */
export function ListHead({ list, what, choices = [] }: { list: List; what: string; choices?: Choice[] }) {
  const { q, said } = list.wanted;
  const [text, setText] = useState(q);
  const { choose } = list;
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
      {choices.map(({ name, label, options }) => (
        <select
          key={name}
          className="select select-sm w-auto"
          aria-label={label}
          value={said(name)}
          onChange={(event) => choose(name, event.target.value)}
        >
          {options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      ))}
    </search>
  );
}
