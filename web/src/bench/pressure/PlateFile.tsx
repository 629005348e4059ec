import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, got, type Schemas } from "../../api/client";
import { useGivenFiles } from "../../send/useGivenFiles";
import { typed } from "../../units";
import { useBench, useBenchStore } from "../benchContext";
import type { Side } from "../benchState";

const MOST_BYTES = 2_000_000;
const COLUMNS = "time_s, lead_force_n, trail_force_n; and lead_toe, lead_outer, trail_toe, trail_outer";

/** What a pressure plate felt during a stage's swing: how to add it, what it is, and how to take it away. */
export function PlateFile({ side }: { side: Side }) {
  const bench = useBenchStore();
  const id = useBench((state) => state.sides[side]?.swing.id ?? "");
  const kept = useBench((state) => state.sides[side]?.pressure ?? null);
  const [adding, setAdding] = useState(false);
  const [removed, setRemoved] = useState<Schemas["PressureFile"] | null>(null);
  const params = { path: { id } };
  const heard = (answer: Schemas["EditAnswer"]) => bench.getState().heard(side, answer);
  const keep = useMutation({
    mutationFn: (body: Schemas["PressureFile"]) =>
      got(api.PUT("/api/swings/{id}/pressure", { params, body })),
    onSuccess: (answer) => {
      heard(answer);
      setAdding(false);
      setRemoved(null);
    },
  });
  const remove = useMutation({
    mutationFn: async () => {
      setRemoved(await got(api.GET("/api/swings/{id}/pressure", { params })));
      return got(api.DELETE("/api/swings/{id}/pressure", { params }));
    },
    onSuccess: heard,
    onError: (error) => {
      setRemoved(null);
      bench.getState().set({ notice: error.message });
    },
  });
  return (
    <section aria-label="Pressure plate" className="max-h-full shrink-0 overflow-y-auto px-2 py-1 text-sm">
      <div className="flex items-center gap-2">
        <span className="flex-1">{kept ? <Told felt={kept} /> : <Nothing removed={removed} />}</span>
        {kept && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
          >
            Remove
          </button>
        )}
        {!kept && removed && (
          <button type="button" className="btn btn-xs" onClick={() => keep.mutate(removed)}>
            Undo
          </button>
        )}
        {!kept && !adding && (
          <button type="button" className="btn btn-xs" onClick={() => setAdding(true)}>
            Add a file
          </button>
        )}
      </div>
      {adding && !kept && (
        <FileForm keep={keep.mutate} busy={keep.isPending} leave={() => setAdding(false)} />
      )}
      {(keep.error ?? remove.error) && (
        <p role="alert" className="pt-1 text-error">
          {(keep.error ?? remove.error)?.message}
        </p>
      )}
    </section>
  );
}

function Told({ felt }: { felt: Schemas["PressureOut"] }) {
  return (
    <>
      Pressure plate: {felt.file_name}, <span className="num">{felt.instants}</span> instants over{" "}
      <span className="num">{felt.seconds.toFixed(2)}</span> s, impact at{" "}
      <span className="num">
        {felt.impact_s.toFixed(3)} ± {felt.impact_u95_s.toFixed(3)}
      </span>{" "}
      s
    </>
  );
}

function Nothing({ removed }: { removed: Schemas["PressureFile"] | null }) {
  return removed ? <>Removed {removed.file_name}.</> : <>Pressure plate: no data</>;
}

interface FileFormProps {
  keep: (file: Schemas["PressureFile"]) => void;
  busy: boolean;
  leave: () => void;
}

function FileForm({ keep, busy, leave }: FileFormProps) {
  const [file, setFile] = useState<File | null>(null);
  const [impact, setImpact] = useState("");
  const [trouble, setTrouble] = useState("");
  const hanging = useGivenFiles(([given]) => given && setFile(given));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const impact_s = impact.trim() === "" ? null : typed(impact);
    if (!file) setTrouble("Choose a file.");
    else if (file.size > MOST_BYTES) setTrouble(`${file.name} is larger than 2 MB: cut out the swing.`);
    else if (impact_s !== null && !Number.isFinite(impact_s)) setTrouble(`Impact: “${impact}” is no number.`);
    else {
      setTrouble("");
      keep({ file_name: file.name.slice(0, 120), text: await file.text(), impact_s });
    }
  };
  return (
    <form onSubmit={submit} className="grid gap-1 py-1">
      <label className="grid gap-0.5">
        CSV or JSON
        <input
          type="file"
          accept=".csv,.tsv,.txt,.json"
          className="file-input file-input-xs w-full"
          onChange={(event) => setFile(event.target.files?.[0] ?? null)}
        />
      </label>
      {file && <p>{file.name}</p>}
      <p className="opacity-75">{hanging ? "Let go: it is taken." : "Drop or paste works too."}</p>
      <p className="opacity-75">Columns: {COLUMNS} where the plate tells places.</p>
      <label className="flex items-center gap-1">
        Impact on the plate’s clock
        <input
          className="input input-xs num w-18"
          inputMode="decimal"
          value={impact}
          onChange={(event) => setImpact(event.target.value)}
        />
        s; left empty: as the file says, or found in the force
      </label>
      {trouble && (
        <p role="alert" className="text-error">
          {trouble}
        </p>
      )}
      <div className="flex gap-1">
        <button type="submit" className="btn btn-primary btn-xs" disabled={busy}>
          Keep
        </button>
        <button type="button" className="btn btn-xs" onClick={leave}>
          Cancel
        </button>
      </div>
    </form>
  );
}
