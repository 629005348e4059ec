import { type FormEvent, useEffect, useState } from "react";
import { typed } from "../../units";
import { useBench } from "../benchContext";
import type { Side, SideState } from "../benchState";
import type { Facts } from "../edits";

const NOTHING: Facts = { distance_m: null, height_m: null, squared: false, plumb: null };
const FIELDS = [
  ["distance_m", "Camera", "4.0", "Distance from the camera to the player along the floor, metres", 1, 30],
  ["height_m", "up", "1.1", "Height of the camera above the floor, metres", 0.05, 5],
] as const;

/** What somebody knows of the camera: how far, how high, whether it was squared to a stick. */
export function FactsFields({ side, state }: { side: Side; state: SideState }) {
  const edit = useBench((bench) => bench.edit);
  const facts = state.on.facts ?? NOTHING;
  const change = (part: Partial<Facts>) => edit(side, { kind: "facts", value: { ...facts, ...part } });
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 text-xs whitespace-nowrap">
      {FIELDS.map(([name, words, usual, title, low, high]) => (
        <Metres
          key={name}
          words={words}
          title={title}
          value={facts[name] ?? null}
          usual={usual}
          low={low}
          high={high}
          keep={(value) => change({ [name]: value })}
        />
      ))}
      <label
        className="flex items-center gap-1"
        title="The camera was squared to a stick: ±1.5°, else ±8° by eye"
      >
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={facts.squared ?? false}
          onChange={(event) => change({ squared: event.target.checked })}
        />
        squared
      </label>
    </div>
  );
}

function Metres(props: {
  words: string;
  title: string;
  value: number | null;
  usual: string;
  low: number;
  high: number;
  keep: (value: number | null) => void;
}) {
  const { value, usual, low, high, keep } = props;
  const [text, setText] = useState("");
  useEffect(() => setText(value === null ? "" : value.toFixed(2)), [value]);
  const done = () => {
    const said = typed(text);
    if (text === "") {
      if (value !== null) keep(null);
    } else if (said >= low && said <= high) {
      if (said !== value) keep(said);
    } else setText(value === null ? "" : value.toFixed(2));
  };
  return (
    <label className="flex items-center gap-1" title={props.title}>
      {props.words}
      <input
        className="input input-xs num w-13"
        inputMode="decimal"
        placeholder={usual}
        value={text}
        onChange={(event: FormEvent<HTMLInputElement>) => setText(event.currentTarget.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          done();
        }}
      />
      m
    </label>
  );
}
