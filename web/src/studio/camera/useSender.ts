import { useEffect, useState } from "react";
import { TrySender } from "./trySender";
import type { Way } from "./ways";

/** Sends what this browser holds, whether a camera is open or not; `way` is the same object as long as it is. */
export function useSender(way: Way, arrived: () => void): TrySender | null {
  const [sender, setSender] = useState<TrySender | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is done once one has arrived is the same
  useEffect(() => {
    const made = new TrySender(way, arrived);
    setSender(made);
    return () => made.end();
  }, [way]);
  return sender;
}
