import { useEffect, useState } from "react";

/** A value once it has been the same for a while: what follows from it is not asked for at each step of a drag. */
export function useRested(value: string, forMs: number): string {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const wait = setTimeout(() => setRested(value), forMs);
    return () => clearTimeout(wait);
  }, [value, forMs]);
  return rested;
}
