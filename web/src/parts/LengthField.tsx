import { useCallback, useEffect, useId, useState } from "react";
import { lengthOver, lengthText, lengthTrouble, lengthUnit, type Scale } from "../lengths";
import type { Units } from "../units";

interface Props {
  label: string;
  title?: string;
  value: number | null; // metres
  units: Units;
  scale?: Scale;
  least: number;
  most: number;
  usual?: string; // what it often is, while nothing is said
  mayBeEmpty?: boolean;
  keep: (length_m: number | null) => void;
}

/**
 * A length with its unit, written as people write it. It is kept when the field is left or Enter is pressed;
 * what will not do stays as it was typed, and says why. It follows the length itself: an answer of the server
 * that changes nothing does not wipe what is being typed.
 */
export function LengthField(props: Props) {
  const { value, units, scale = "small", least, most, mayBeEmpty = false, keep } = props;
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState("");
  const why = useId();
  const write = useCallback(() => {
    setText(value === null ? "" : lengthText(value, units, scale));
    setTrouble("");
  }, [value, units, scale]);
  useEffect(write, [write]);
  const done = () => {
    if (text.trim() === "") {
      if (mayBeEmpty && value !== null) keep(null);
      else write();
      return;
    }
    const said = lengthOver(text, value, units, scale);
    const found = lengthTrouble(said, least, most, units, scale);
    setTrouble(found);
    if (found) return;
    if (said === value) write();
    else keep(said);
  };
  return (
    <span className="inline-flex flex-wrap items-center gap-1">
      <label className="flex items-center gap-1" title={props.title}>
        {props.label}
        <input
          className={`input input-xs num ${scale === "large" ? "w-18" : "w-16"}`}
          placeholder={props.usual}
          value={text}
          aria-invalid={trouble !== ""}
          aria-describedby={trouble ? why : undefined}
          onChange={(event) => setText(event.target.value)}
          onBlur={done}
          onKeyDown={(event) => {
            if (event.key === "Escape") write();
            if (event.key !== "Enter") return;
            event.preventDefault();
            done();
          }}
        />
        {text.includes("′") ? "" : lengthUnit(scale, units)}
      </label>
      {trouble && (
        <span id={why} role="alert" className="basis-full whitespace-normal">
          {trouble}
        </span>
      )}
    </span>
  );
}
