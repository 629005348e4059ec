import { createContext, useContext } from "react";
import { useStore } from "zustand";
import type { Bench, BenchState } from "./benchStore";

export const BenchContext = createContext<Bench | null>(null);

export function useBench<T>(pick: (state: BenchState) => T): T {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench outside a bench");
  return useStore(bench, pick);
}
