import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy } from "lucide-react";
import { useState } from "react";
import { api, got } from "../api/client";
import { requestsQuery, type Student } from "../api/queries";
import { Field } from "../parts/Field";
import { KeptNote } from "../parts/KeptNote";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { useKeptForm } from "../parts/useKeptForm";
import { day, when } from "../parts/when";

/** A private link by which a student sends swings, made, copied and taken back. */
export function AskForSwing({ student }: { student: Student }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-sm whitespace-nowrap" onClick={() => setOpen(true)}>
        Ask for a swing<span className="sr-only"> from {student.name}</span>
      </button>
      {open && (
        <Sheet title={`Ask ${student.name} for a swing`} close={() => setOpen(false)}>
          <Link student={student} />
        </Sheet>
      )}
    </>
  );
}

function Link({ student }: { student: Student }) {
  const queries = useQueryClient();
  const requests = useQuery(requestsQuery);
  const kept = useKeptForm(`ask.${student.id}`);
  const [copied, setCopied] = useState(false);
  const refresh = () => queries.invalidateQueries({ queryKey: ["requests"] });
  const make = useMutation({
    mutationFn: (note: string) => got(api.POST("/api/requests", { body: { student_id: student.id, note } })),
    onSuccess: () => {
      kept.clear();
      return refresh();
    },
  });
  const close = useMutation({
    mutationFn: (id: string) => got(api.DELETE("/api/requests/{id}", { params: { path: { id } } })),
    onSuccess: refresh,
  });
  const request = requests.data?.find((each) => each.student_id === student.id);
  const error = requests.error ?? make.error ?? close.error;
  return (
    <>
      {error && <Trouble error={error} />}
      {request ? (
        <>
          <p className="text-sm">
            Whoever has this link can send clips for {student.name}, and see nothing of your practice. Made{" "}
            {when(request.made_at)}; it runs out on {day(request.expires_at)}.
          </p>
          <p className="num my-3 text-sm break-all" data-testid="request-link">
            {request.link}
          </p>
          <div className="flex gap-2">
            <button
              type="button"
              className="btn btn-primary btn-sm"
              onClick={() => navigator.clipboard.writeText(request.link).then(() => setCopied(true))}
            >
              <Copy size={14} aria-hidden /> {copied ? "Copied" : "Copy the link"}
            </button>
            <button type="button" className="btn btn-sm" onClick={() => close.mutate(request.id)}>
              Take the link back
            </button>
          </div>
        </>
      ) : (
        <form
          key={kept.round}
          {...kept.form}
          onSubmit={(event) => {
            event.preventDefault();
            make.mutate(String(new FormData(event.currentTarget).get("note")));
          }}
        >
          <KeptNote kept={kept} />
          <Field label="What to film" hint="They read it above the form.">
            <textarea className="textarea w-full" name="note" rows={3} maxLength={1000} />
          </Field>
          <button type="submit" className="btn btn-primary w-full" disabled={make.isPending}>
            Make the link
          </button>
        </form>
      )}
    </>
  );
}
