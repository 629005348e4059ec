import { useState } from "react";
import type { Book } from "../api/queries";
import { Trouble } from "../parts/Trouble";
import type { Units } from "../units";
import { usePages, useUnits } from "./useBook";
import {
  type Band,
  bandWords,
  clashesOf,
  type Dispute,
  idFrom,
  type Model,
  type Option,
  PHASE_WORDS,
  spoken,
  type UnitOf,
} from "./words";

interface Props {
  model: Model;
  beside: Model | undefined;
  book: Book;
  units: Units;
  saved: (id: string) => void;
}

/** A model, dispute by dispute: the options with why, whom they suit, what they ask; clashes are said aloud. */
export function ModelEditor({ model, beside, book, units, saved }: Props) {
  const { write, remove } = usePages();
  const unitOf = useUnits();
  const own = book.own.includes(`model ${model.id}`);
  const [name, setName] = useState(own ? model.name : `${model.name}, mine`);
  const [about, setAbout] = useState(model.about);
  const [chosen, setChosen] = useState<Record<string, string>>(model.chosen);
  const changed = book.disputes.some(({ id }) => chosen[id] !== model.chosen[id]);
  const touched = changed || about !== model.about || (own && name !== model.name);
  const clashes = clashesOf(book.clashes, chosen);
  const save = () => {
    const id = own
      ? model.id
      : idFrom(
          name,
          book.models.map((each) => each.id),
        );
    const document = {
      kind: "model",
      id,
      name: name.trim(),
      about: about.trim(),
      chosen,
      changes: bands(model),
    };
    write.mutate({ document }, { onSuccess: () => saved(id) });
  };
  const differs = (id: string) => beside !== undefined && beside.chosen[id] !== chosen[id];
  const count = book.disputes.filter(({ id }) => differs(id)).length;
  return (
    <div>
      {!touched && !own && <p className="mb-3 max-w-prose text-sm">{model.about}</p>}
      {(touched || own) && (
        <div className="plate mb-3 grid gap-2 border-l-4 border-l-brass p-3">
          <input
            className="input input-sm w-full"
            aria-label="Name of the model"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <textarea
            className="textarea textarea-sm w-full"
            aria-label="Why and for whom"
            rows={2}
            maxLength={600}
            value={about}
            onChange={(event) => setAbout(event.target.value)}
          />
          {write.error && <Trouble error={write.error} />}
          <div className="flex flex-wrap items-center gap-2">
            <button
              type="button"
              className="btn btn-primary btn-sm"
              disabled={!touched || !name.trim() || !about.trim() || write.isPending}
              onClick={save}
            >
              {own ? "Save" : "Keep as a model of your own"}
            </button>
            {own && (
              <button
                type="button"
                className="btn btn-sm"
                onClick={() =>
                  remove.mutate({ kind: "model", piece: model.id }, { onSuccess: () => saved("") })
                }
              >
                Take it out
              </button>
            )}
            <a className="btn btn-sm" href={`/api/book/pages/model/${model.id}.toml`} download>
              Save as a file
            </a>
          </div>
        </div>
      )}
      {clashes.map((clash) => (
        <p key={clash.id} role="note" className="mb-2 border-l-4 border-brass bg-base-200 p-2 text-sm">
          <b>
            Clash{clash.motion ? ` where the ${spoken(clash.motion)} turns less than ${clash.under}°` : ""}:
          </b>{" "}
          {clash.text}
        </p>
      ))}
      {beside && (
        <p className="mb-2 text-sm font-semibold" role="status">
          {count === 0
            ? `It takes the same sides as “${beside.name}” everywhere.`
            : `It differs from “${beside.name}” in ${count} of ${book.disputes.length} disputes.`}
        </p>
      )}
      {Object.entries(PHASE_WORDS).map(([phase, words]) => {
        const disputes = book.disputes.filter((dispute) => dispute.phase === phase);
        if (!disputes.length) return null;
        return (
          <section key={phase} className="mb-4">
            <h2 className="mb-1 bg-pine px-2 py-1 text-sm font-semibold text-paper">{words}</h2>
            {disputes.map((dispute) => (
              <Choice
                key={dispute.id}
                dispute={dispute}
                chosen={chosen[dispute.id]}
                beside={differs(dispute.id) ? beside?.chosen[dispute.id] : undefined}
                besideName={beside?.name ?? ""}
                choose={(option) => setChosen({ ...chosen, [dispute.id]: option })}
                units={units}
                unitOf={unitOf}
              />
            ))}
          </section>
        );
      })}
      {bands(model).length > 0 && (
        <section>
          <h2 className="mb-1 bg-pine px-2 py-1 text-sm font-semibold text-paper">
            Asked otherwise by this model
          </h2>
          <Bands bands={bands(model)} units={units} unitOf={unitOf} />
        </section>
      )}
    </div>
  );
}

interface ChoiceProps {
  dispute: Dispute;
  chosen: string | undefined;
  beside: string | undefined;
  besideName: string;
  choose: (option: string) => void;
  units: Units;
  unitOf: UnitOf;
}

function Choice({ dispute, chosen, beside, besideName, choose, units, unitOf }: ChoiceProps) {
  return (
    <fieldset
      className={`plate mb-2 p-2 text-sm ${beside ? "border-l-4 border-l-brass" : ""}`}
      data-testid={`dispute-${dispute.id}`}
    >
      <legend className="px-1 font-semibold">{dispute.name}</legend>
      <p className="mb-1 text-xs opacity-85">{dispute.question}</p>
      <div className="grid gap-1 md:grid-cols-2">
        {dispute.options.map((option) => (
          <label
            key={option.id}
            className="flex cursor-pointer items-start gap-2 rounded-sm border border-base-content/25 p-2 has-checked:border-2 has-checked:border-brass has-checked:bg-base-200"
          >
            <input
              type="radio"
              className="radio radio-sm mt-0.5"
              name={dispute.id}
              checked={chosen === option.id}
              onChange={() => choose(option.id)}
            />
            <span className="min-w-0">
              <span className="font-medium">{option.name}</span>
              {beside === option.id && <em className="text-xs"> chosen by “{besideName}”</em>}
              <span className="block text-xs">{option.why}</span>
              <span className="block text-xs opacity-85">Suits: {option.suits}</span>
              <Bands bands={option.bands} units={units} unitOf={unitOf} />
              {(option.loads?.length ?? 0) > 0 && (
                <span className="block text-xs">Loads the {option.loads?.map(spoken).join(", ")}.</span>
              )}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Bands({ bands, units, unitOf }: { bands: readonly Band[]; units: Units; unitOf: UnitOf }) {
  return (
    <span className="num block text-[11px] leading-snug opacity-90">
      {bands.map((band) => (
        <span key={JSON.stringify(band)} className="block">
          {bandWords(band, units, unitOf)}
        </span>
      ))}
    </span>
  );
}

const bands = (model: Model): Option["bands"] => model.changes ?? [];
