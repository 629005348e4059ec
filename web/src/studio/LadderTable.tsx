import { ArrowDown, ArrowUp, Columns2, X } from "lucide-react";
import { type ReactNode, useId } from "react";
import type { Schemas } from "../api/client";
import { tapeScale } from "../drawn/tapeScale";
import { BenchLink } from "../parts/BenchLink";
import { type Units, withError } from "../units";
import {
  type Column,
  changedWords,
  columnWords,
  isSigned,
  type Ladder,
  STRUCK_WORDS,
  type Try,
} from "./ladderWords";
import { Said } from "./Said";
import { Whisker } from "./Whisker";

interface Doings {
  change: (id: string, said: Schemas["RungChange"]) => void;
  move: (id: string, by: -1 | 1) => void;
  takeOut: (id: string) => void;
}

/** The tries as rungs, one below the other, each with what is watched of it. */
export function LadderTable({ ladder, units, doings }: { ladder: Ladder; units: Units; doings: Doings }) {
  const known = useId();
  // The first that was filmed and counts is what the others are looked at beside.
  const base = ladder.tries.findIndex(({ films, left_out }) => films.length > 0 && !left_out);
  const beside = ladder.tries[base]?.swing_id;
  const changes = [...new Set(ladder.tries.map(({ changed }) => changed).filter(Boolean))];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
    <section className="overflow-x-auto" tabIndex={0} aria-label="The ladder">
      <table className="table table-sm">
        <thead className="text-base-content">
          <tr>
            <th scope="col">Try</th>
            <th scope="col">What was changed</th>
            <th scope="col">What they felt</th>
            <th scope="col">Struck</th>
            {ladder.columns.map((column) => (
              <th scope="col" key={column.column} className="max-w-32 leading-tight whitespace-normal">
                {columnWords(column)}
              </th>
            ))}
            <th scope="col">Counts</th>
            <th scope="col">
              <span className="sr-only">Move or take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ladder.tries.map((each, place) => (
            <tr key={each.id} className={each.left_out ? "opacity-75" : ""}>
              <th scope="row">
                <BenchLink className="num font-medium underline" id={each.swing_id}>
                  {place + 1}
                </BenchLink>
              </th>
              <td>
                <Said
                  label={`What was changed at try ${place + 1}`}
                  value={each.changed}
                  longest={80}
                  placeholder={changedWords("")}
                  list={known}
                  keep={(changed) => doings.change(each.id, { changed })}
                />
              </td>
              <td>
                <Said
                  label={`What they felt at try ${place + 1}`}
                  value={each.felt}
                  longest={200}
                  keep={(felt) => doings.change(each.id, { felt })}
                />
              </td>
              <td>
                <span className="hidden print:inline" aria-hidden>
                  {each.struck && STRUCK_WORDS[each.struck]}
                </span>
                <select
                  className="select select-sm w-auto"
                  aria-label={`How try ${place + 1} was struck`}
                  value={each.struck}
                  onChange={(event) => doings.change(each.id, { struck: event.target.value as "clean" })}
                >
                  <option value="">not said</option>
                  {Object.entries(STRUCK_WORDS).map(([struck, words]) => (
                    <option key={struck} value={struck}>
                      {words}
                    </option>
                  ))}
                </select>
              </td>
              {ladder.columns.map((column) => (
                <td key={column.column}>
                  <Cell column={column} tried={each} ladder={ladder} units={units} />
                </td>
              ))}
              <td>
                <Said
                  label={`Why try ${place + 1} does not count`}
                  value={each.left_out}
                  longest={120}
                  placeholder="yes"
                  keep={(left_out) => doings.change(each.id, { left_out })}
                />
              </td>
              <td className="whitespace-nowrap">
                {beside && beside !== each.swing_id && each.films.length > 0 && (
                  <BenchLink
                    className="btn btn-ghost btn-xs btn-square"
                    id={each.swing_id}
                    search={`?${new URLSearchParams({ beside })}`}
                    label={`Try ${place + 1} on the bench, try ${base + 1} beside it`}
                  >
                    <Columns2 size={14} aria-hidden />
                  </BenchLink>
                )}
                <Tool
                  label={`Try ${place + 1} one up`}
                  off={place === 0}
                  act={() => doings.move(each.id, -1)}
                >
                  <ArrowUp size={14} aria-hidden />
                </Tool>
                <Tool
                  label={`Try ${place + 1} one down`}
                  off={place === ladder.tries.length - 1}
                  act={() => doings.move(each.id, 1)}
                >
                  <ArrowDown size={14} aria-hidden />
                </Tool>
                <Tool label={`Take try ${place + 1} out`} off={false} act={() => doings.takeOut(each.id)}>
                  <X size={14} aria-hidden />
                </Tool>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <datalist id={known}>
        {changes.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
    </section>
  );
}

function Cell(props: { column: Column; tried: Try; ladder: Ladder; units: Units }) {
  const { column, tried, ladder, units } = props;
  const of = (each: Try) => each.values.find((value) => value.column === column.column);
  const own = of(tried);
  if (!own) return <span className="opacity-75">{tried.looking ? "being read" : "not read"}</span>;
  const all = ladder.tries.map(of).filter((each) => each !== undefined);
  const ends = all.flatMap(({ value, u95 }) => [value - u95, value + u95]);
  const scale = tapeScale(ends, column.unit, units, false);
  const base = ladder.steps
    .flatMap(({ columns }) => columns)
    .find(({ column: name }) => name === column.column)?.base;
  return (
    <>
      <span className="num block text-xs whitespace-nowrap">
        {withError(own.value, own.u95, column.unit, units, isSigned(column))}
        {own.provisional && <span className="font-sans italic"> provisional</span>}
      </span>
      <Whisker {...own} scale={scale} base={base} />
    </>
  );
}

function Tool(props: { label: string; off: boolean; act: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs btn-square"
      aria-label={props.label}
      disabled={props.off}
      onClick={props.act}
    >
      {props.children}
    </button>
  );
}
