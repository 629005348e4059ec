import { createContext, useContext } from "react";
import { useStore } from "zustand";
import type { BenchState, Side } from "./benchState";
import type { Bench } from "./benchStore";

export const BenchContext = createContext<Bench | null>(null);

/** The open bench itself, for acting on it without listening to it. */
export function useBenchStore(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("There is no bench here");
  return bench;
}

/** The frame on which a stage stands: whoever asks is drawn anew with every step. */
export function useFrame(side: Side): number {
  return useBench((bench) => bench.stands[side].frame);
}

/** A part of the bench's state, listened to. */
export function useBench<T>(pick: (state: BenchState) => T): T {
  return useStore(useBenchStore(), pick);
}
