import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { api, got, type Schemas } from "../api/client";
import { meQuery, modelsQuery, type Student } from "../api/queries";
import { lengthOver, lengthText, lengthTrouble } from "../lengths";
import { Field } from "../parts/Field";
import { KeptNote } from "../parts/KeptNote";
import { Trouble } from "../parts/Trouble";
import { useKeptForm } from "../parts/useKeptForm";

const SHORTEST_M = 0.8;
const TALLEST_M = 2.5;

/** Add a student, or change one. */
export function StudentForm({ student, done }: { student?: Student; done: (saved?: Student) => void }) {
  const units = useQuery(meQuery).data?.units ?? "cm";
  const models = useQuery(modelsQuery);
  const queries = useQueryClient();
  const kept = useKeptForm(student ? `student.${student.id}` : "student", models.isSuccess);
  const save = useMutation({
    mutationFn: (body: Schemas["StudentNew"]) =>
      student
        ? got(api.PUT("/api/students/{id}", { params: { path: { id: student.id } }, body }))
        : got(api.POST("/api/students", { body })),
    onSuccess: async (saved) => {
      kept.clear();
      await queries.invalidateQueries({ queryKey: ["students"] });
      done(saved);
    },
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const field = event.currentTarget.elements.namedItem("stature") as HTMLInputElement;
    check(field);
    if (!field.reportValidity()) return;
    const form = new FormData(event.currentTarget);
    const minor = form.has("minor");
    save.mutate({
      id: String(form.get("id")), // pressed twice, or the answer lost: it is one student
      name: String(form.get("name")).trim(),
      email: String(form.get("email")).trim(),
      hand: form.get("hand") as Student["hand"],
      units: form.get("units") as Student["units"],
      stature_m: tall(field),
      teaching_model: form.get("teaching_model") as Student["teaching_model"],
      history: String(form.get("history")).trim(),
      minor,
      guardian: minor ? String(form.get("guardian")).trim() : "",
      guardian_email: minor ? String(form.get("guardian_email")).trim() : "",
      consent_on: (minor && String(form.get("consent_on"))) || null,
    });
  };
  const stature = student?.stature_m ? lengthText(student.stature_m, units, "person") : "";
  const tall = (field: HTMLInputElement) =>
    lengthOver(field.value, student?.stature_m ?? null, units, "person");
  const check = (field: HTMLInputElement) => {
    const trouble = lengthTrouble(tall(field), SHORTEST_M, TALLEST_M, units, "person");
    field.setCustomValidity(field.value === "" ? "" : trouble);
  };
  if (!models.data) return models.error && <Trouble error={models.error} />;
  return (
    <form key={kept.round} {...kept.form} onSubmit={submit} className="group">
      <KeptNote kept={kept} />
      <input type="hidden" name="id" defaultValue={student?.id ?? kept.round} />
      <Field label="Name">
        <input className="input w-full" name="name" required maxLength={120} defaultValue={student?.name} />
      </Field>
      <Field label="Mail address" hint="Lessons are sent here.">
        <input className="input w-full" name="email" type="email" defaultValue={student?.email} />
      </Field>
      <Field label="Plays">
        <select className="select w-full" name="hand" defaultValue={student?.hand ?? "right"}>
          <option value="right">Right-handed</option>
          <option value="left">Left-handed</option>
        </select>
      </Field>
      <Field label="Reads lengths in">
        <select className="select w-full" name="units" defaultValue={student?.units ?? ""}>
          <option value="">{units === "cm" ? "What I use (centimetres)" : "What I use (inches)"}</option>
          <option value="cm">Centimetres</option>
          <option value="in">Inches</option>
        </select>
      </Field>
      <Field label={`Height, ${units}`}>
        <input
          className="input num w-full"
          name="stature"
          placeholder={units === "cm" ? "172" : "5′ 9½″"}
          onInput={(event) => check(event.currentTarget)}
          defaultValue={stature}
        />
      </Field>
      <Field label="Taught by" hint="The bands on the tapes follow this model. Common practice, no source.">
        <select
          className="select w-full"
          name="teaching_model"
          defaultValue={student?.teaching_model ?? "loaded_shift"}
        >
          {models.data.map((model) => (
            <option key={model.id} value={model.id}>
              {model.name}
            </option>
          ))}
        </select>
      </Field>
      <Field label="To keep in mind" hint="History, operations, what to spare. Only you see this.">
        <textarea
          className="textarea w-full"
          name="history"
          rows={3}
          maxLength={2000}
          defaultValue={student?.history}
        />
      </Field>
      <label className="mb-3 flex items-center gap-2 text-sm font-medium">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          name="minor"
          defaultChecked={student?.minor}
        />
        Under age: a guardian must consent before a clip is taken in
      </label>
      <div className="hidden group-has-[[name=minor]:checked]:block">
        <Field label="Guardian who consented">
          <input className="input w-full" name="guardian" maxLength={120} defaultValue={student?.guardian} />
        </Field>
        <Field label="Guardian's mail address" hint="Gets the same mails, and the same page by a code.">
          <input
            className="input w-full"
            name="guardian_email"
            type="email"
            defaultValue={student?.guardian_email}
          />
        </Field>
        <Field label="Consent given on">
          <input
            className="input num w-full"
            name="consent_on"
            type="date"
            defaultValue={student?.consent_on ?? ""}
          />
        </Field>
      </div>
      {save.error && <Trouble error={save.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={save.isPending}>
        {student ? "Save" : "Add student"}
      </button>
    </form>
  );
}
