import type { Book } from "../api/queries";
import { DrillShown } from "../parts/DrillShown";
import type { Hand } from "../words";
import { ShownForm } from "./ShownForm";
import { usePages } from "./useBook";
import { type Drill, PLACE_WORDS, spoken } from "./words";

interface DrillCardProps {
  drill: Drill;
  book: Book;
  hand: Hand;
  write: () => void;
}

/** One drill: against what, how it is set up and felt, its ladder, its camera check and its caution. */
export function DrillCard({ drill, book, hand, write }: DrillCardProps) {
  const { remove } = usePages();
  const own = book.own.includes(`drill ${drill.id}`);
  const against = drill.faults.map((id) => book.faults.find((fault) => fault.id === id)?.name ?? spoken(id));
  const rows: [string, string][] = [
    ["Set up", drill.set_up],
    ["Feel", drill.feel],
    ["Not felt", drill.not_felt],
    ["Think of", drill.cue],
    ["The camera shows", drill.camera.text],
    ["Done wrong", drill.done_wrong],
  ];
  return (
    <li className="plate p-3 text-sm" data-testid={`drill-${drill.id}`}>
      <h2 className="font-semibold">
        {drill.name}
        {own && <em className="ml-2 text-xs font-normal">your own</em>}
      </h2>
      <p className="mt-0.5 text-xs opacity-85">
        Against: {against.join(", ")}. Goes {drill.places.map((place) => PLACE_WORDS[place]).join(" or ")}
        {drill.props?.length
          ? `, with a ${drill.props.map(spoken).join(" and a ")}`
          : ", with nothing at hand"}
        .
      </p>
      <DrillShown shown={book.shown[drill.id] ?? []} name={drill.name} hand={hand} />
      <p className="mt-1">{drill.set_up}</p>
      <details className="mt-1">
        <summary className="cursor-pointer text-sm font-medium">How it goes</summary>
        <dl className="mt-1 grid gap-1">
          {rows.slice(1).map(([term, text]) => (
            <div key={term}>
              <dt className="text-xs font-semibold">{term}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <ol className="mt-2 list-decimal pl-5">
          {drill.steps.map((step) => (
            <li key={step.do}>
              {step.do} <span className="opacity-85">({step.dose})</span>
            </li>
          ))}
        </ol>
      </details>
      <p className="mt-2 border-l-4 border-brass bg-base-200 p-2 text-xs">
        <strong>Take care.</strong> {drill.caution}
        {drill.not_for?.length ? ` Not for: ${drill.not_for.map(spoken).join(", ")}.` : ""}
      </p>
      {own && (
        <ShownForm drill={drill} has={book.shown[drill.id]?.some(({ what }) => what === "own") ?? false} />
      )}
      <div className="mt-2 flex flex-wrap gap-1">
        <button type="button" className="btn btn-xs" onClick={write}>
          {own ? "Change" : "Copy and change"}
          <span className="sr-only"> {drill.name}</span>
        </button>
        <a className="btn btn-xs" href={`/api/book/pages/drill/${drill.id}.toml`} download>
          Save as a file<span className="sr-only">: {drill.name}</span>
        </a>
        {own && (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            onClick={() => remove.mutate({ kind: "drill", piece: drill.id })}
          >
            Take out<span className="sr-only"> {drill.name}</span>
          </button>
        )}
      </div>
    </li>
  );
}
