import type { Schemas } from "../api/client";
import { type Hand, sidesOf } from "../words";
import type { Motion } from "./bodyWords";

interface Props {
  motions: Schemas["BookOut"]["motions"];
  measured: Motion[];
  hand: Hand;
}

/** Ranges of motion as they were measured: what is asked of a swing gives way to them. */
export function MotionFields({ motions, measured, hand }: Props) {
  const today = new Date().toISOString().slice(0, 10);
  const known = new Map(measured.map((each) => [each.motion, each]));
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 text-sm font-medium">Range of motion, degrees</legend>
      {motions.map(({ id, name, how, least = 0, most, usual }) => (
        <div key={id} className="mb-1 flex items-center gap-1 text-sm" title={how}>
          <span className="min-w-0 flex-1">
            <span className="inline-block first-letter:uppercase">{sidesOf(name.toLowerCase(), hand)}</span>{" "}
            <span className="text-xs opacity-80">(usual {usual}°)</span>
          </span>
          <input
            type="number"
            step="any"
            min={least}
            max={most}
            className="input input-sm num w-20"
            name={`degrees ${id}`}
            aria-label={`${sidesOf(name.toLowerCase(), hand)}, degrees`}
            defaultValue={known.get(id)?.degrees}
          />
          <input
            type="date"
            required
            className="input input-sm num w-34"
            name={`on ${id}`}
            aria-label={`${sidesOf(name.toLowerCase(), hand)}, measured on`}
            defaultValue={known.get(id)?.measured_on ?? today}
          />
        </div>
      ))}
    </fieldset>
  );
}
