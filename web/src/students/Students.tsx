import { useQuery } from "@tanstack/react-query";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { meQuery, modelsQuery, type Student, studentsQuery } from "../api/queries";
import { useRemoval } from "../bin/useBin";
import { tallness } from "../lengths";
import { BY_CLUB, BY_HAND, kindAsked } from "../lists/kinds";
import { ListFoot } from "../lists/ListFoot";
import { chosenFirst, ListHead } from "../lists/ListHead";
import { useList } from "../lists/useList";
import { Empty, Page } from "../parts/Page";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { AskForSwing } from "./AskForSwing";
import { BodyForm } from "./BodyForm";
import { StudentForm } from "./StudentForm";

const SHOWS = [
  ["taught", "Those I teach"],
  ["waiting", "Those whose swings wait"],
  ["archived", "Archived"],
] as const;
const ORDERS = [
  ["name", "By name"],
  ["newest", "Newest first"],
] as const;

export function Students() {
  const list = useList();
  const { q, limit, offset, said } = list.wanted;
  const show = SHOWS.find(([each]) => each === said("show"))?.[0] ?? "taught";
  const order = ORDERS.find(([each]) => each === said("order"))?.[0] ?? "name";
  const { hand, club_class } = kindAsked(list.wanted);
  const students = useQuery(studentsQuery({ q, limit, offset, show, order, hand, club_class }));
  const searched = q !== "" || show !== "taught" || hand !== undefined || club_class !== undefined;
  const models = useQuery(modelsQuery);
  const units = useQuery(meQuery).data?.units ?? "cm";
  const [open, setOpen] = useState<Student | "new" | null>(null);
  const [body, setBody] = useState<Student | null>(null);
  return (
    <Page
      title="Students"
      actions={
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setOpen("new")}>
          <Plus size={16} aria-hidden /> New student
        </button>
      }
    >
      {students.error && !students.data && <Trouble error={students.error} retry={students.refetch} />}
      <ListHead
        list={list}
        what="students"
        choices={[
          { name: "show", label: "Which students", options: chosenFirst(SHOWS) },
          { name: "order", label: "Order", options: chosenFirst(ORDERS) },
        ]}
        more={[BY_HAND, BY_CLUB]}
      />
      {students.data?.count === 0 && (
        <Empty>{searched ? "No student is found by that." : "No students yet. Add the first one."}</Empty>
      )}
      <ul className="grid gap-2 sm:grid-cols-2">
        {students.data?.items.map((student) => (
          <li key={student.id} className="plate flex items-center justify-between gap-3 p-3">
            <div>
              <h2 className="font-semibold">
                <Link className="hover:underline" to={`/students/${student.id}`}>
                  {student.name}
                </Link>
              </h2>
              <p className="text-sm opacity-85">
                {student.hand}-handed
                {student.stature_m !== null && ` · ${tallness(student.stature_m, units)}`} ·{" "}
                {models.data?.find((model) => model.id === student.teaching_model)?.name}
              </p>
              <p className="text-sm opacity-85">{student.email || "no mail address"}</p>
              {student.history && <p className="mt-1 text-sm">{student.history}</p>}
              {student.minor && (
                <p className="mt-1 text-sm font-medium">
                  {student.consent_on
                    ? `Under age; ${student.guardian} consented${student.consent_on ? ` on ${day(student.consent_on)}` : ""}`
                    : "Under age; no guardian has consented yet, so no clip can be taken in"}
                </p>
              )}
            </div>
            <div className="flex shrink-0 flex-col items-end gap-2">
              <button type="button" className="btn btn-sm" onClick={() => setOpen(student)}>
                Change<span className="sr-only"> {student.name}</span>
              </button>
              <button type="button" className="btn btn-sm" onClick={() => setBody(student)}>
                Body<span className="sr-only"> and ball of {student.name}</span>
              </button>
              <AskForSwing student={student} />
              <RemoveStudent student={student} />
            </div>
          </li>
        ))}
      </ul>
      {students.data && <ListFoot list={list} count={students.data.count} />}
      {body && (
        <Sheet title={`${body.name}: body and ball`} close={() => setBody(null)}>
          <BodyForm student={body} done={() => setBody(null)} />
        </Sheet>
      )}
      {open && (
        <Sheet title={open === "new" ? "New student" : open.name} close={() => setOpen(null)}>
          <StudentForm student={open === "new" ? undefined : open} done={() => setOpen(null)} />
        </Sheet>
      )}
    </Page>
  );
}

function RemoveStudent({ student }: { student: Student }) {
  const remove = useRemoval(
    "student",
    `${student.name}, with swings and lessons,`,
    () => got(api.DELETE("/api/students/{id}", { params: { path: { id: student.id } } })),
    student.id,
  );
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs"
      aria-label={`Remove ${student.name}`}
      disabled={remove.isPending}
      onClick={() => remove.mutate()}
    >
      <Trash2 size={14} aria-hidden />
    </button>
  );
}
