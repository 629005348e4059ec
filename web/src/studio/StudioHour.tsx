import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Table2 } from "lucide-react";
import { useId, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, got, type Schemas } from "../api/client";
import { hourQuery, meQuery, studentQuery } from "../api/queries";
import { Empty, Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { done } from "../shell/undo";
import { TryCamera } from "./camera/TryCamera";
import { LadderTable } from "./LadderTable";
import { LaunchSheet } from "./LaunchSheet";
import { columnWords, type Ladder, movedWords } from "./ladderWords";
import { LiveLine } from "./live/LiveLine";
import { Said } from "./Said";
import { StepPlate } from "./StepPlate";
import { useSaid } from "./useSaid";

const MOST_COLUMNS = 6;

/** One studio hour: its tries as rungs, and what each change did. */
export function StudioHour() {
  const { id = "" } = useParams();
  const hour = useQuery(hourQuery(id));
  if (hour.error && !hour.data) return <Trouble error={hour.error} retry={hour.refetch} />;
  if (!hour.data) return <p className="p-6">Fetching the hour…</p>;
  return <Hour key={id} ladder={hour.data} />;
}

function Hour({ ladder: saved }: { ladder: Ladder }) {
  const { ladder, sayAbout, sayOf } = useSaid(saved);
  const { id } = ladder;
  const queries = useQueryClient();
  const navigate = useNavigate();
  const student = useQuery(studentQuery(ladder.student_id)).data;
  const me = useQuery(meQuery).data;
  const units = me?.units ?? "cm";
  const [sure, setSure] = useState(false); // what was said at its tries goes with it
  const [shots, setShots] = useState(false);
  const path = { id };
  const act = useMutation({
    mutationFn: (doing: () => Promise<Ladder>) => doing(),
    onSuccess: (now) => queries.setQueryData(hourQuery(id).queryKey, now),
    onError: () => queries.invalidateQueries({ queryKey: hourQuery(id).queryKey }),
    scope: { id: `hour ${id}` }, // one after the other, in the order they were made
  });
  const run = (doing: () => Promise<Ladder>) => act.mutate(doing);
  const change = (body: Schemas["HourChange"]) =>
    run(() => got(api.PATCH("/api/hours/{id}", { params: { path }, body })));
  const remove = useMutation({
    mutationFn: () => got(api.DELETE("/api/hours/{id}", { params: { path } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["hours", ladder.student_id] });
      navigate(`/students/${ladder.student_id}`);
    },
  });
  const doings = {
    change: sayOf,
    move: (try_id: string, by: -1 | 1) => {
      const order = ladder.tries.map((each) => each.id);
      const from = order.indexOf(try_id);
      order.splice(from + by, 0, ...order.splice(from, 1));
      change({ order });
    },
    takeOut: (try_id: string) => {
      const place = ladder.tries.findIndex((each) => each.id === try_id);
      const out = ladder.tries[place];
      if (!out) return;
      const { swing_id, changed, felt, struck, left_out, struck_at } = out;
      const body = { swing_id, changed, felt, struck, left_out, struck_at, place };
      const putBack = () => got(api.POST("/api/hours/{id}/tries", { params: { path }, body }));
      run(async () => {
        const now = await got(
          api.DELETE("/api/hours/{id}/tries/{try_id}", { params: { path: { id, try_id } } }),
        );
        done("The try is taken out of the hour; its swing stays.", () => run(putBack));
        return now;
      });
    },
  };
  const trouble = act.error ?? remove.error;
  const moved = movedWords(ladder.tries);
  return (
    <Page
      wide
      title={`Studio hour, ${day(ladder.day)}`}
      actions={
        <>
          {ladder.tries.length > 0 && (
            <button type="button" className="btn btn-sm" onClick={() => setShots(true)}>
              <Table2 size={14} aria-hidden /> Shots from a table
            </button>
          )}
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => (sure ? remove.mutate() : setSure(true))}
            onBlur={() => setSure(false)}
          >
            {sure ? "Forget it with all that was said at its tries?" : "Forget this hour"}
          </button>
        </>
      }
    >
      <p className="mb-3 text-sm">
        With{" "}
        <Link className="underline" to={`/students/${ladder.student_id}`}>
          {student?.name ?? "the student"}
        </Link>
        .{" "}
        <span className="print:hidden">
          Say at each try the one thing that was changed; tries that say the same stand together.
        </span>
      </p>
      {trouble && <Trouble error={trouble} />}
      <div className={`mb-3 max-w-xl ${ladder.about ? "" : "print:hidden"}`}>
        <Said
          label="What this hour is for"
          value={ladder.about}
          longest={200}
          placeholder="What this hour is for"
          keep={sayAbout}
        />
      </div>
      {shots && <LaunchSheet ladder={ladder} units={units} close={() => setShots(false)} />}
      <LiveLine ladder={ladder} units={units} />
      {me && <TryCamera ladder={ladder} user={me.id} />}
      {moved && (
        <p className="mb-2 text-sm" role="status">
          {moved}
        </p>
      )}
      <Watched ladder={ladder} change={(columns) => change({ columns })} />
      {ladder.tries.length === 0 ? (
        <Empty>No swing of this day is in the log yet that is not of another hour.</Empty>
      ) : (
        <LadderTable ladder={ladder} units={units} doings={doings} />
      )}
      {ladder.steps.length > 0 && ladder.columns.length > 0 && (
        <section aria-labelledby="did" className="mt-4">
          <h2 id="did" className="mb-2 text-lg font-semibold">
            What it did, against the first tries
          </h2>
          <ul className="grid gap-2 lg:grid-cols-2">
            {ladder.steps.map((step) => (
              <StepPlate key={step.changed} step={step} columns={ladder.columns} units={units} />
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}

/** Which readings are watched: chosen out of what was read of any try. */
function Watched({ ladder, change }: { ladder: Ladder; change: (columns: string[]) => void }) {
  const field = useId();
  const chosen = ladder.columns.map(({ column }) => column);
  const open = ladder.offered.filter(({ column }) => !chosen.includes(column));
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2 text-sm print:hidden">
      <span className="font-medium">Watched:</span>
      {ladder.columns.map((each) => (
        <button
          key={each.column}
          type="button"
          className="btn btn-xs"
          onClick={() => change(chosen.filter((column) => column !== each.column))}
        >
          {columnWords(each)} ×<span className="sr-only">: watch it no more</span>
        </button>
      ))}
      {chosen.length < MOST_COLUMNS && (
        <>
          <label className="sr-only" htmlFor={field}>
            Watch a reading
          </label>
          <select
            id={field}
            className="select select-sm w-auto max-w-64"
            value=""
            onChange={(event) => change([...chosen, event.target.value])}
          >
            <option value="">{open.length ? "Watch a reading…" : "Nothing was read yet"}</option>
            {open.map((each) => (
              <option key={each.column} value={each.column}>
                {columnWords(each)}
              </option>
            ))}
          </select>
        </>
      )}
    </div>
  );
}
