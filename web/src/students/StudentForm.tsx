import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { meQuery, type Student, schoolsQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { metres, shown, typed } from "../units";

/** Add a student, or change one. */
export function StudentForm({ student, done }: { student?: Student; done: (saved?: Student) => void }) {
  const units = useQuery(meQuery).data?.units ?? "cm";
  const schools = useQuery(schoolsQuery);
  const queries = useQueryClient();
  const [minor, setMinor] = useState(student?.minor ?? false);
  const save = useMutation({
    mutationFn: (body: Schemas["StudentIn"]) =>
      student
        ? got(api.PUT("/api/students/{id}", { params: { path: { id: student.id } }, body }))
        : got(api.POST("/api/students", { body })),
    onSuccess: async (saved) => {
      await queries.invalidateQueries({ queryKey: ["students"] });
      done(saved);
    },
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const stature = String(form.get("stature"));
    save.mutate({
      name: String(form.get("name")).trim(),
      email: String(form.get("email")).trim(),
      hand: form.get("hand") as Student["hand"],
      stature_m: stature ? metres(typed(stature), units) : null,
      school: form.get("school") as Student["school"],
      history: String(form.get("history")).trim(),
      minor,
      guardian: minor ? String(form.get("guardian")).trim() : "",
      consent_on: (minor && String(form.get("consent_on"))) || null,
    });
  };
  const stature = student?.stature_m
    ? shown(student.stature_m, "m", units).toFixed(units === "cm" ? 0 : 1)
    : "";
  return (
    <form onSubmit={submit}>
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
      <Field label={`Height, ${units}`}>
        <input
          className="input num w-full"
          name="stature"
          inputMode="decimal"
          pattern="[0-9]+([.,][0-9]+)?"
          title="A number, such as 240 or 156,5"
          defaultValue={stature}
        />
      </Field>
      <Field label="Taught by" hint="The bands on the tapes follow this model. Common practice, no source.">
        <select className="select w-full" name="school" defaultValue={student?.school ?? "loaded_shift"}>
          {schools.data?.map((school) => (
            <option key={school.id} value={school.id}>
              {school.name}
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
          checked={minor}
          onChange={(event) => setMinor(event.target.checked)}
        />
        Under age: a guardian must consent before a clip is taken in
      </label>
      {minor && (
        <>
          <Field label="Guardian who consented">
            <input
              className="input w-full"
              name="guardian"
              maxLength={120}
              defaultValue={student?.guardian}
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
        </>
      )}
      {save.error && <Trouble error={save.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={save.isPending}>
        {student ? "Save" : "Add student"}
      </button>
    </form>
  );
}
