import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Radio } from "lucide-react";
import { useEffect, useId, useState } from "react";
import { api, got } from "../../api/client";
import { hourQuery, lineQuery } from "../../api/queries";
import { Trouble } from "../../parts/Trouble";
import type { Units } from "../../units";
import type { Ladder } from "../ladderWords";
import { Devices } from "./Devices";
import { HourLine, lineAddress } from "./line";
import { SetUpTiles } from "./SetUpTiles";
import { Strikes } from "./Strikes";

/** What an hour's devices tell while balls are hit: the set-up as it is felt now, and every strike. */
export function LiveLine({ ladder, units }: { ladder: Ladder; units: Units }) {
  const { id } = ladder;
  const heading = useId();
  const queries = useQueryClient();
  const line = useQuery(lineQuery(id));
  const [sure, setSure] = useState(false);
  const [copied, setCopied] = useState(false);
  const params = { path: { id } };
  const turn = useMutation({
    // What was asked before, and is answered after, would say how it was.
    onMutate: () => queries.cancelQueries({ queryKey: lineQuery(id).queryKey }),
    mutationFn: (open: boolean) =>
      open
        ? got(api.POST("/api/hours/{id}/line", { params }))
        : got(api.DELETE("/api/hours/{id}/line", { params })),
    onSuccess: (now) => {
      queries.setQueryData(lineQuery(id).queryKey, now);
      setSure(false);
      setCopied(false);
    },
  });
  const address = line.data?.address ?? null;
  const listening = useLine(id, address !== null);
  if (line.error && !line.data) return <Trouble error={line.error} retry={line.refetch} />;
  if (!line.data) return null;
  const { strikes, set_up, open_until } = line.data;
  const until =
    open_until && new Date(open_until).toLocaleTimeString(undefined, { timeStyle: "short", hour12: false });
  return (
    <section aria-labelledby={heading} className="plate mb-4 p-3 print:hidden">
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <h2 id={heading} className="flex items-center gap-2 text-lg font-semibold">
          <Radio size={16} aria-hidden /> Live
        </h2>
        {address === null ? (
          <>
            <p className="flex-1">
              A pressure plate and a launch monitor can send to this hour while balls are hit.
            </p>
            <button
              type="button"
              className="btn btn-sm"
              disabled={turn.isPending}
              onClick={() => turn.mutate(true)}
            >
              Open the line
            </button>
          </>
        ) : (
          <>
            <label className="flex min-w-0 flex-[1_1_18rem] items-center gap-2">
              <span className="whitespace-nowrap">Devices send to</span>
              <input
                readOnly
                className="input input-sm num w-full min-w-24"
                value={address}
                onFocus={(event) => event.target.select()}
              />
            </label>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => navigator.clipboard.writeText(address).then(() => setCopied(true))}
            >
              {copied ? "Copied" : "Copy"}
            </button>
            <span className="whitespace-nowrap">Open until {until}</span>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              disabled={turn.isPending}
              onClick={() => (sure ? turn.mutate(false) : setSure(true))}
              onBlur={() => setSure(false)}
            >
              {sure ? "Close it? Devices need a new address then" : "Close the line"}
            </button>
          </>
        )}
      </div>
      {turn.error && <Trouble error={turn.error} />}
      {listening && (
        <>
          <Devices line={listening} />
          <SetUpTiles line={listening} asked={set_up} units={units} />
        </>
      )}
      {strikes.length > 0 && <Strikes told={line.data} ladder={ladder} units={units} />}
    </section>
  );
}

/** The hour's line while it is open; a strike is fetched as soon as it is told of. */
function useLine(id: string, open: boolean): HourLine | null {
  const queries = useQueryClient();
  const [line, setLine] = useState<HourLine | null>(null);
  useEffect(() => {
    if (!open) return;
    const made = new HourLine(lineAddress(id, window.location), () => {
      void queries.invalidateQueries({ queryKey: hourQuery(id).queryKey }); // and its line's, below it
    });
    setLine(made);
    return () => {
      made.end();
      setLine(null);
    };
  }, [id, open, queries]);
  return line;
}
