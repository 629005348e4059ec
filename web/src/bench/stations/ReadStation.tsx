import type { Units } from "../../units";
import { ReadingsPanel } from "../readings/ReadingsPanel";

/** The tapes, from the floor up, in the whole height. */
export function ReadStation({ units, model }: { units: Units; model?: string }) {
  return <ReadingsPanel units={units} model={model} />;
}
