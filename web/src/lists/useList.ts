import { useSearchParams } from "react-router";
import { chosenNow } from "../parts/address";

export const PAGE_ROWS = 24;

/** What of a long list is looked at; it stands in the address, so that Back leads to it. */
export interface Wanted {
  q: string;
  offset: number;
  limit: number;
  said: (name: string) => string; // another choice, "" where none is made
}

export interface List {
  wanted: Wanted;
  choose: (name: string, value: string) => void;
  clear: (names: string[]) => void; // choices, made at once
  turnTo: (page: number) => void;
  page: number; // from 0
}

/** The words, choices and page of a list, kept in the address. */
export function useList(): List {
  const [params, setParams] = useSearchParams();
  const page = Math.max(0, Math.floor(Number(params.get("page") ?? 1)) - 1) || 0;
  const change = (name: string, value: string, replace: boolean) =>
    setParams(
      () => {
        const next = chosenNow();
        if (name !== "page") next.delete("page");
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace },
    );
  return {
    page,
    wanted: {
      q: params.get("q") ?? "",
      offset: page * PAGE_ROWS,
      limit: PAGE_ROWS,
      said: (name) => params.get(name) ?? "",
    },
    choose: (name, value) => change(name, value, true),
    clear: (names) =>
      setParams(
        () =>
          new URLSearchParams([...chosenNow()].filter(([name]) => name !== "page" && !names.includes(name))),
        { replace: true },
      ),
    turnTo: (to) => change("page", to > 0 ? String(to + 1) : "", false),
  };
}
