import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Copy } from "lucide-react";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";

const WISHES = { each: "each time", daily: "at most once a day", off: "never" };

/** A student's own page: its link, when it was opened, and how to renew or close it. */
export function PageLink(props: { student: Schemas["StudentOut"]; page: Schemas["PageState"] }) {
  const { student, page } = props;
  const [copied, setCopied] = useState(false);
  const queries = useQueryClient();
  const path = { id: student.id };
  const act = useMutation({
    mutationFn: (open: boolean) =>
      open
        ? got(api.POST("/api/students/{id}/page", { params: { path } }))
        : got(api.DELETE("/api/students/{id}/page", { params: { path } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  return (
    <section className="plate p-4">
      <h2 className="mb-1 font-semibold">Their own page</h2>
      {act.error && <Trouble error={act.error} />}
      {page.link ? (
        <>
          <p className="text-sm">
            {page.opened_at ? `Last opened ${when(page.opened_at)}.` : "Not opened yet."} News by mail:{" "}
            {WISHES[page.mail_wish]}.
          </p>
          {page.mail_trouble && <p className="mt-1 text-sm font-semibold">{page.mail_trouble}</p>}
          <p className="num mt-2 text-xs break-all">{page.link}</p>
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => navigator.clipboard.writeText(page.link ?? "").then(() => setCopied(true))}
            >
              <Copy size={14} aria-hidden /> {copied ? "Copied" : "Copy the link"}
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={act.isPending}
              onClick={() => act.mutate(true)}
            >
              Renew it
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={act.isPending}
              onClick={() => act.mutate(false)}
            >
              Close it
            </button>
          </div>
          <p className="mt-2 text-xs opacity-85">
            Renewing makes new links to the page and to every lesson; whoever has the old ones gets no
            further.
            {student.email && " The student gets in by a code sent by mail."}
          </p>
        </>
      ) : (
        <>
          <p className="text-sm">Closed: no link of {student.name} leads anywhere.</p>
          <button
            type="button"
            className="btn btn-sm mt-2"
            disabled={act.isPending}
            onClick={() => act.mutate(true)}
          >
            Open it with a new link
          </button>
        </>
      )}
    </section>
  );
}
