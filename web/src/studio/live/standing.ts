const NEAR = 0.02; // of a share: a plate feels no finer, and nobody stands stiller

/** Whether somebody stands as is taught; a word that changes back and forth at an end would help nobody. */
export function standing(value: number, low: number | null, high: number | null): "low" | "inside" | "high" {
  if (low !== null && value < low - NEAR) return "low";
  return high !== null && value > high + NEAR ? "high" : "inside";
}
