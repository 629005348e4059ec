import type { Schemas } from "../api/client";

type Drawn = Schemas["GaugeOut"];

/** Lines that stand on every frame, and what is drawn on some. */
export type Gauge = Omit<Drawn, "shapes"> & { shapes: Omit<Drawn["shapes"][number], "at">[] };
