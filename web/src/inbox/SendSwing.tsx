import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { studentsQuery } from "../api/queries";
import { ClipFields } from "../parts/ClipFields";
import { Field } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { TakeIn } from "../parts/TakeIn";
import { useUpload } from "../parts/useUpload";
import { StudentForm } from "../students/StudentForm";

/** Take in a student's clip with their words. */
export function SendSwing({ close }: { close: () => void }) {
  const students = useQuery(studentsQuery);
  const [adding, setAdding] = useState(false);
  const [student, setStudent] = useState("");
  const { submit, share, error } = useUpload("/api/swings", "swings", close);
  if (adding)
    return (
      <Sheet title="New student" close={() => setAdding(false)}>
        <StudentForm
          done={(added) => {
            if (added) setStudent(added.id);
            setAdding(false);
          }}
        />
      </Sheet>
    );
  return (
    <Sheet title="New swing" close={close}>
      <form onSubmit={submit}>
        <Field label="Student">
          <select
            className="select w-full"
            name="student_id"
            required
            value={student}
            onChange={(event) => setStudent(event.target.value)}
          >
            <option value="">Choose…</option>
            {students.data?.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
          </select>
        </Field>
        <button type="button" className="link mb-3 text-sm" onClick={() => setAdding(true)}>
          Add a student first
        </button>
        <ClipFields />
        <Field label="Club">
          <input className="input w-full" name="club" maxLength={60} placeholder="7 iron" />
        </Field>
        <Field label="In the student's words">
          <textarea className="textarea w-full" name="words" rows={3} maxLength={2000} />
        </Field>
        <Field label="Usual miss">
          <input className="input w-full" name="usual_miss" maxLength={200} />
        </Field>
        <Field label="What hurts">
          <input className="input w-full" name="what_hurts" maxLength={200} />
        </Field>
        <TakeIn share={share} error={error} />
      </form>
    </Sheet>
  );
}
