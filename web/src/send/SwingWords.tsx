import type { Schemas } from "../api/client";
import { Field } from "../parts/Field";
import { KindFields, kindOf } from "./KindFields";

/** What a student says of a swing; the names match the API's. */
export function SwingWords({ own = false }: { own?: boolean }) {
  return (
    <>
      <KindFields own={own} />
      <Field label={own ? "In your words" : "In the student's words"}>
        <textarea className="textarea w-full" name="words" rows={3} maxLength={2000} />
      </Field>
      <Field label="Usual miss">
        <input className="input w-full" name="usual_miss" maxLength={200} />
      </Field>
      <Field label="What hurts">
        <input className="input w-full" name="what_hurts" maxLength={200} />
      </Field>
      <Field label="Where the camera stood" hint="On a stand or in a hand, how far away, how high.">
        <input className="input w-full" name="camera_place" maxLength={200} />
      </Field>
    </>
  );
}

/** The words of a form that holds SwingWords. */
export function wordsOf(form: HTMLFormElement): Omit<Schemas["SwingIn"], "clips" | "one_swing"> {
  const data = new FormData(form);
  const said = (name: string) => String(data.get(name) ?? "").trim();
  return {
    ...kindOf(form),
    words: said("words"),
    usual_miss: said("usual_miss"),
    what_hurts: said("what_hurts"),
    camera_place: said("camera_place"),
  };
}
