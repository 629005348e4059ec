import type { Schemas } from "../api/client";
import { TapePicture } from "../drawn/TapePicture";
import { number, type Units, unitSign } from "../units";
import { type Hand, momentWords } from "../words";
import { goalWords, nameOf, readWords } from "./goalWords";

type Row = Schemas["MeasuredSent"];

/** All that was measured and that the teaching model asks for, folded: each on its tape, in plain words. */
export function Measured({ rows, units, hand }: { rows: Row[]; units: Units; hand: Hand }) {
  if (!rows.length) return null;
  return (
    <details className="mt-6 border-t border-base-content/25 pt-3">
      <summary className="cursor-pointer font-semibold">Everything measured ({rows.length})</summary>
      <ul className="mt-2 grid gap-4">
        {rows.map((row) => (
          <li key={`${row.reading} ${row.at}`}>
            <p className="text-sm">
              <strong>{momentWords(row.at)}</strong>: {nameOf(row.reading, hand)}{" "}
              {readWords(row.reading, row.value, row.unit, units, hand)}{" "}
              <span className="num text-xs whitespace-nowrap">
                (± {number(row.u95, row.unit, units)} {unitSign(row.unit, units)})
              </span>
            </p>
            <TapePicture band={row} unit={row.unit} value={row.value} u95={row.u95} units={units} />
            <p className="text-xs opacity-85">Wanted: {goalWords(row, units, hand)}.</p>
          </li>
        ))}
      </ul>
    </details>
  );
}
