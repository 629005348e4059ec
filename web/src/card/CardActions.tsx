import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Archive, ArchiveRestore, Merge, Package, Printer } from "lucide-react";
import { useState } from "react";
import { api, got } from "../api/client";
import { type Student, studentQuery } from "../api/queries";
import { Sheet } from "../parts/Sheet";
import { done, failed } from "../shell/undo";
import { AskForSwing } from "../students/AskForSwing";
import { BodyForm } from "../students/BodyForm";
import { StudentForm } from "../students/StudentForm";
import { MergeCards } from "./MergeCards";

/** What can be done with a whole card. */
export function CardActions({ student }: { student: Student }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState<"about" | "body" | "merge" | null>(null);
  const anew = () =>
    Promise.all(
      [["student", student.id], ["body", student.id], ["trends"]].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  const archive = useMutation({
    mutationFn: (archived: boolean) =>
      got(
        api.PUT("/api/students/{id}/archived", { params: { path: { id: student.id } }, body: { archived } }),
      ),
    onSuccess: async (now) => {
      queries.setQueryData(studentQuery(student.id).queryKey, now);
      await queries.invalidateQueries({ queryKey: ["students"] });
      const off = now.archived_at !== null;
      done(`${student.name} is ${off ? "off" : "back on"} the list.`, () => archive.mutate(!off));
    },
    onError: failed,
  });
  const close = () => {
    setOpen(null);
    void anew();
  };
  const archived = student.archived_at !== null;
  return (
    <div className="flex flex-wrap justify-end gap-2 print:hidden">
      <AskForSwing student={student} />
      <button type="button" className="btn btn-sm" onClick={() => setOpen("about")}>
        Change
      </button>
      <button type="button" className="btn btn-sm" onClick={() => setOpen("body")}>
        Body and ball
      </button>
      <button type="button" className="btn btn-sm" onClick={() => window.print()}>
        <Printer size={14} aria-hidden /> Print
      </button>
      <button
        type="button"
        className="btn btn-sm"
        disabled={archive.isPending}
        onClick={() => archive.mutate(!archived)}
      >
        {archived ? <ArchiveRestore size={14} aria-hidden /> : <Archive size={14} aria-hidden />}
        {archived ? "Bring back" : "Archive"}
      </button>
      <a
        className="btn btn-sm"
        href={`/api/students/${student.id}/record.zip`}
        download
        title="Swings, lessons, clips, the log: all that is kept, in one zip"
      >
        <Package size={14} aria-hidden /> Take along
      </a>
      <button type="button" className="btn btn-sm" onClick={() => setOpen("merge")}>
        <Merge size={14} aria-hidden /> Merge
      </button>
      {open === "merge" && (
        <Sheet title="Two cards of one person" close={close}>
          <MergeCards student={student} done={close} />
        </Sheet>
      )}
      {open === "about" && (
        <Sheet title={student.name} close={close}>
          <StudentForm student={student} done={close} />
        </Sheet>
      )}
      {open === "body" && (
        <Sheet title={`${student.name}: body and ball`} close={close}>
          <BodyForm student={student} done={close} />
        </Sheet>
      )}
    </div>
  );
}
