import { useQuery } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { type Book, meQuery } from "../api/queries";
import { Choices } from "../parts/Choices";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { PARTS } from "../students/bodyWords";
import { shown, typed, unitSign } from "../units";
import { CHECKPOINTS, READING_WORDS, VIEW_WORDS, VIEWS } from "../words";
import { usePages, useUnits } from "./useBook";
import { type Drill, idFrom, PLACE_WORDS, spoken } from "./words";

const TEXTS = [
  ["set_up", "Set up"],
  ["feel", "Feel"],
  ["not_felt", "Not felt"],
  ["cue", "Think of, outside the body"],
  ["done_wrong", "How one tells that it is done wrong"],
  ["caution", "Caution"],
] as const;

/** Writes a drill of one's own: anew, from a shipped one, or one that is there. Say lead and trail: it holds for either hand.
 * To be shown once the catalogue is there: a choice of readings without readings would be sent empty. */
export function DrillForm({ drill, book, done }: { drill?: Drill; book: Book; done: () => void }) {
  const { write } = usePages();
  const units = useQuery(meQuery).data?.units ?? "cm";
  const unitOf = useUnits();
  const own = drill && book.own.includes(`drill ${drill.id}`);
  const holds = drill?.camera.holds;
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    const name = text("name");
    const reading = text("reading");
    const unit = unitOf[reading] ?? "ratio";
    const document = {
      kind: "drill",
      id: own
        ? drill.id
        : idFrom(
            name,
            book.drills.map(({ id }) => id),
          ),
      name,
      faults: form.getAll("faults"),
      places: form.getAll("places"),
      drawn_as:
        own || !drill
          ? drill?.drawn_as
          : (drill.drawn_as ?? (book.shown[drill.id]?.length ? drill.id : undefined)),
      not_for: form.getAll("not_for"),
      loads: form.getAll("loads"),
      props: text("props")
        .split(",")
        .map((each) => each.trim().toLowerCase().replace(/\s+/g, "_"))
        .filter(Boolean),
      ...Object.fromEntries(TEXTS.map(([field]) => [field, text(field)])),
      steps: [0, 1, 2, 3].map((i) => ({ do: text(`do ${i}`), dose: text(`dose ${i}`) })),
      camera: {
        view: text("view"),
        text: text("camera"),
        alone: form.get("alone") !== null && (drill?.camera.alone || true),
        holds: { reading, at: text("at"), [text("way")]: typed(text("limit")) / shown(1, unit, units) },
      },
    };
    write.mutate({ document }, { onSuccess: done });
  };
  const limit = holds?.below ?? holds?.above;
  const readings = Object.keys(unitOf).filter((id) => READING_WORDS[id]);
  return (
    <form onSubmit={submit}>
      <Field label="Name" hint="Everywhere: say lead and trail, so that it holds for either hand.">
        <input
          className="input w-full"
          name="name"
          required
          maxLength={80}
          defaultValue={drill && (own ? drill.name : `${drill.name}, mine`)}
        />
      </Field>
      <Choices
        legend="Against"
        name="faults"
        ids={book.faults.map(({ id }) => id)}
        words={(id) => book.faults.find((fault) => fault.id === id)?.name ?? id}
        chosen={drill?.faults}
        long
      />
      <Choices
        legend="Where"
        name="places"
        ids={["home", "range"] as const}
        words={(id) => PLACE_WORDS[id]}
        chosen={drill?.places ?? ["home", "range"]}
      />
      <Field label="Props" hint="Separated by commas.">
        <input className="input w-full" name="props" defaultValue={drill?.props?.map(spoken).join(", ")} />
      </Field>
      {TEXTS.map(([field, label]) => (
        <Field key={field} label={label}>
          <textarea
            className="textarea w-full"
            name={field}
            rows={2}
            required
            maxLength={600}
            defaultValue={drill?.[field]}
          />
        </Field>
      ))}
      <fieldset className="mb-3">
        <legend className="mb-1 text-sm font-medium">
          The ladder: from slow without a club to full with a ball
        </legend>
        {[0, 1, 2, 3].map((i) => (
          <div key={i} className="mb-1 flex gap-1">
            <input
              className="input input-sm flex-2"
              name={`do ${i}`}
              aria-label={`Step ${i + 1}`}
              required
              maxLength={600}
              defaultValue={drill?.steps[i]?.do}
            />
            <input
              className="input input-sm flex-1"
              name={`dose ${i}`}
              aria-label={`How much of step ${i + 1}`}
              placeholder="ten"
              required
              maxLength={600}
              defaultValue={drill?.steps[i]?.dose}
            />
          </div>
        ))}
      </fieldset>
      <fieldset className="mb-3">
        <legend className="mb-1 text-sm font-medium">The camera check</legend>
        <label className="mb-1 flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            name="alone"
            defaultChecked={Boolean(drill?.camera.alone)}
          />
          A student films it and a machine alone says whether it was so
        </label>
        <textarea
          className="textarea w-full"
          name="camera"
          aria-label="What the clip shows"
          rows={2}
          required
          maxLength={600}
          defaultValue={drill?.camera.text}
        />
        <div className="mt-1 flex flex-wrap gap-1">
          <select
            className="select select-sm flex-1"
            name="view"
            aria-label="From where"
            defaultValue={drill?.camera.view}
          >
            {VIEWS.map((view) => (
              <option key={view} value={view}>
                {VIEW_WORDS[view]}
              </option>
            ))}
          </select>
          <select
            className="select select-sm flex-2"
            name="reading"
            aria-label="Which reading"
            defaultValue={holds?.reading ?? "pelvis_sway"}
          >
            {readings.map((id) => (
              <option key={id} value={id}>
                {READING_WORDS[id]} ({unitSign(unitOf[id] ?? "ratio", units)})
              </option>
            ))}
          </select>
          <select
            className="select select-sm flex-1"
            name="at"
            aria-label="When"
            defaultValue={holds?.at ?? "top"}
          >
            {CHECKPOINTS.map(([at, words]) => (
              <option key={at} value={at}>
                {words}
              </option>
            ))}
          </select>
          <select
            className="select select-sm flex-1"
            name="way"
            aria-label="Above or below"
            defaultValue={holds?.below == null && drill ? "above" : "below"}
          >
            <option value="above">above</option>
            <option value="below">below</option>
          </select>
          <input
            className="input input-sm num w-20"
            name="limit"
            aria-label="Limit"
            required
            pattern="[\-+−]?[0-9]+([.,][0-9]+)?"
            defaultValue={
              typeof limit === "number" && holds
                ? shown(limit, unitOf[holds.reading] ?? "ratio", units).toFixed(1)
                : undefined
            }
          />
        </div>
      </fieldset>
      <Choices
        legend="Not for whom this hurts"
        name="not_for"
        ids={PARTS}
        words={spoken}
        chosen={drill?.not_for}
      />
      <Choices legend="Loads" name="loads" ids={PARTS} words={spoken} chosen={drill?.loads} />
      {write.error && <Trouble error={write.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={write.isPending}>
        {own ? "Save" : "Add to your book"}
      </button>
    </form>
  );
}
