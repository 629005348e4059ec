import type { Schemas } from "../api/client";
import { Choices } from "../parts/Choices";
import { Field } from "../parts/Field";
import { type BodyPart, MISS_WORDS, MISSES, type Miss, PARTS, partWords } from "../students/bodyWords";
import type { Hand } from "../words";
import { KindFields, kindOf } from "./KindFields";

/** What a student says of a swing; the names match the API's. */
export function SwingWords({ own = false, hand }: { own?: boolean; hand: Hand }) {
  return (
    <>
      <KindFields own={own} />
      <Field label={own ? "In your words" : "In the student's words"}>
        <textarea className="textarea w-full" name="words" rows={3} maxLength={2000} />
      </Field>
      <Choices legend="Usual miss" name="misses" ids={MISSES} words={(id) => MISS_WORDS[id]} />
      <Field label="Usual miss, in words">
        <input className="input w-full" name="usual_miss" maxLength={200} />
      </Field>
      <details className="mb-3">
        <summary className="cursor-pointer text-sm font-medium">Something hurts</summary>
        <div className="mt-1">
          <Choices legend="What hurts" name="hurts" ids={PARTS} words={(part) => partWords(part, hand)} />
          <Field label="What hurts, in words">
            <input className="input w-full" name="what_hurts" maxLength={200} />
          </Field>
        </div>
      </details>
      <Field label="Where the camera stood" hint="On a stand or in a hand, how far away, how high.">
        <input className="input w-full" name="camera_place" maxLength={200} />
      </Field>
    </>
  );
}

/** The words of a form that holds SwingWords. */
export function wordsOf(form: HTMLFormElement): Omit<Schemas["SwingSent"], "clips" | "one_swing" | "drill"> {
  const data = new FormData(form);
  const said = (name: string) => String(data.get(name) ?? "").trim();
  return {
    ...kindOf(form),
    words: said("words"),
    usual_miss: said("usual_miss"),
    what_hurts: said("what_hurts"),
    misses: data.getAll("misses").map(String) as Miss[],
    hurts: data.getAll("hurts").map(String) as BodyPart[],
    camera_place: said("camera_place"),
  };
}
