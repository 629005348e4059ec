import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Smartphone } from "lucide-react";
import { useState } from "react";
import { encode } from "uqr";
import { api, got } from "../../api/client";
import { lineQuery } from "../../api/queries";
import { Trouble } from "../../parts/Trouble";

/** The code by which a phone becomes a camera of the hour. */
export function PhoneCode({ hour }: { hour: string }) {
  const queries = useQueryClient();
  const line = useQuery(lineQuery(hour));
  const [shown, setShown] = useState(false);
  const open = useMutation({
    // What was asked before, and is answered after, would say that the line is closed.
    onMutate: () => queries.cancelQueries({ queryKey: lineQuery(hour).queryKey }),
    mutationFn: () => got(api.POST("/api/hours/{id}/line", { params: { path: { id: hour } } })),
    onSuccess: (now) => queries.setQueryData(lineQuery(hour).queryKey, now),
  });
  if (!line.data) return null;
  const { film } = line.data;
  const show = () => {
    if (!shown && !film) open.mutate();
    setShown(!shown);
  };
  return (
    <div className="mt-2 text-sm">
      <button type="button" className="btn btn-sm btn-ghost" aria-expanded={shown} onClick={show}>
        <Smartphone size={14} aria-hidden /> {shown ? "Put the code away" : "A phone as a camera"}
      </button>
      {open.error && <Trouble error={open.error} />}
      {shown && film && (
        <div className="mt-2 flex flex-wrap items-start gap-4">
          <Code of={film} />
          <div className="max-w-md">
            <p>
              Scan this with the phone, and stand it where it sees the player from another side. It films for
              this hour until the line is closed, and shows nothing of it.
            </p>
            <p className="num mt-2 break-all">
              <a className="underline" href={film} target="_blank" rel="noreferrer">
                {film}
              </a>
            </p>
            {!film.startsWith("https:") && (
              <p className="mt-2">
                This server is reached by a plain line (http): a phone gives its camera to https only.
              </p>
            )}
          </div>
        </div>
      )}
    </div>
  );
}

const QUIET = 2; // light modules about it

function Code({ of }: { of: string }) {
  const { data, size } = encode(of, { border: QUIET });
  const path = data.flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : ""))).join("");
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      className="h-44 w-44 rounded"
      role="img"
      aria-label="The code for the phone"
      shapeRendering="crispEdges"
    >
      <path d={`M0 0h${size}v${size}h${-size}z`} fill="white" />
      <path d={path} fill="black" />
    </svg>
  );
}
