import { useQuery } from "@tanstack/react-query";
import { CircleAlert, Info } from "lucide-react";
import { api, got, type Schemas } from "../api/client";

const KINDS: Record<Schemas["RemarkOut"]["kind"], string> = {
  missing: "Missing",
  uncertain: "Uncertain",
  hurts: "Hurts",
  side: "Left or right",
};

/** What to know before a lesson goes; what stops it stands first. */
export function useRemarks(id: string) {
  return useQuery({
    queryKey: ["sheet-preview", id, "remarks"],
    queryFn: () => got(api.GET("/api/lessons/{id}/remarks", { params: { path: { id } } })),
  });
}

export function Remarks({ remarks }: { remarks: Schemas["RemarkOut"][] }) {
  return (
    <section aria-label="Before it goes" className="plate mt-5 p-3 text-sm">
      <h2 className="mb-1 text-base font-semibold">Before it goes</h2>
      {remarks.length === 0 && <p>Nothing is missing, and nothing on it is uncertain.</p>}
      <ul className="grid gap-1.5">
        {remarks.map(({ kind, words, stops }) => (
          <li key={words} className="flex gap-2">
            {stops ? (
              <CircleAlert size={16} className="mt-0.5 shrink-0" aria-hidden />
            ) : (
              <Info size={16} className="mt-0.5 shrink-0" aria-hidden />
            )}
            <span>
              <strong>
                {KINDS[kind]}
                {stops && ", and it stops the lesson"}.
              </strong>{" "}
              {words}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
