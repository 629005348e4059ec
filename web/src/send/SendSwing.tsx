import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { studentsQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { KeptNote } from "../parts/KeptNote";
import { Sheet } from "../parts/Sheet";
import { useKeptForm } from "../parts/useKeptForm";
import { StudentForm } from "../students/StudentForm";
import { ClipPicker } from "./ClipPicker";
import { useClipUploads } from "./clipUploads";
import { HandInButton } from "./HandInButton";
import { OneSwing, oneSwingOf } from "./OneSwing";
import { SwingWords, wordsOf } from "./SwingWords";
import { useHandIn } from "./useHandIn";

/** Take in a student's clips with their words. */
export default function SendSwing({ close }: { close: () => void }) {
  const students = useQuery(studentsQuery());
  const [adding, setAdding] = useState(false);
  const kept = useKeptForm("swing", !adding);
  const [student, setStudent] = useState(kept.said("student_id"));
  const uploads = useClipUploads("/api/uploads", student);
  const state = useHandIn(uploads, "swings", close, kept);
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
      <form
        key={kept.round}
        {...kept.form}
        onSubmit={(event) => {
          event.preventDefault();
          const body = {
            student_id: student,
            ...wordsOf(event.currentTarget),
            one_swing: oneSwingOf(event.currentTarget),
            clips: uploads.clips(),
          };
          state.handIn(() => got(api.POST("/api/swings", { body })));
        }}
      >
        <KeptNote kept={kept} />
        <Field label="Student">
          <select
            className="select w-full"
            name="student_id"
            required
            value={student}
            onChange={(event) => setStudent(event.target.value)}
          >
            <option value="">Choose…</option>
            {students.data?.items.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
          </select>
        </Field>
        <button type="button" className="link mb-3 text-sm" onClick={() => setAdding(true)}>
          Add a student first
        </button>
        {student ? (
          <ClipPicker uploads={uploads} />
        ) : (
          <p className="mb-3 text-sm">Choose the student first; then the clips.</p>
        )}
        {uploads.bothViews && <OneSwing />}
        <SwingWords hand={students.data?.items.find(({ id }) => id === student)?.hand ?? "right"} />
        <HandInButton state={state} label="Take in" close={close} />
      </form>
    </Sheet>
  );
}
