import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { hourQuery, launchProfilesQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { FileButton } from "../parts/FileButton";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { done, failed } from "../shell/undo";
import type { Units } from "../units";
import { LaunchColumns } from "./LaunchColumns";
import { LaunchLines } from "./LaunchLines";
import type { Ladder } from "./ladderWords";
import { type Decimal, type Looked, type Uses, usesOf } from "./launchTable";

const MOST_BYTES = 1_000_000;

interface Read {
  name: string;
  text: string;
}

/** A launch monitor's table, taken in: its columns said by hand once, its lines put to the tries. */
export function LaunchSheet(props: { ladder: Ladder; units: Units; close: () => void }) {
  const { ladder, units, close } = props;
  const [file, setFile] = useState<Read | null>(null);
  const path = { id: ladder.id };
  const look = useMutation({
    mutationFn: (body: Schemas["LaunchLook"]) =>
      got(api.POST("/api/hours/{id}/shots/look", { params: { path }, body })),
  });
  const open = useMutation({
    mutationFn: async (chosen: File) => {
      if (chosen.size > MOST_BYTES) throw new Error(`${chosen.name}: larger than 1 MB; cut out the hour.`);
      const text = textOf(await chosen.arrayBuffer());
      if (!text.trim()) throw new Error(`${chosen.name}: there is nothing in it.`);
      await look.mutateAsync({ text });
      setFile({ name: chosen.name, text });
    },
  });
  return (
    <Sheet title="Shots of a launch monitor" close={close} wide>
      <p className="mb-3 text-sm">
        A table with a line a shot, as a launch monitor saves it (CSV or text). Say once what its columns are;
        under a name that is known the next time.
      </p>
      <div className="mb-3 flex items-center gap-2">
        <FileButton
          accept=".csv,.tsv,.txt,text/*"
          pending={open.isPending}
          choose={open.mutate}
          size="btn-sm"
        >
          {file ? "Choose another table" : "Choose the table"}
        </FileButton>
        {file && <span className="min-w-0 truncate text-sm">{file.name}</span>}
      </div>
      {open.error && <Trouble error={open.error} />}
      {!open.error && look.error && <Trouble error={look.error} />}
      {file && look.data && (
        <Table
          key={file.name + file.text.length}
          file={file}
          looked={look.data}
          look={(columns, decimal) => look.mutate({ text: file.text, columns, decimal })}
          ladder={ladder}
          units={units}
          close={close}
        />
      )}
      {!file && <Profiles />}
    </Sheet>
  );
}

/** Tables of older programs are not always UTF-8. */
function textOf(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

function Table(props: {
  file: Read;
  looked: Looked;
  look: (columns: Uses, decimal: Decimal) => void;
  ladder: Ladder;
  units: Units;
  close: () => void;
}) {
  const { file, looked, look, ladder, units, close } = props;
  const queries = useQueryClient();
  const [own, setOwn] = useState<Record<number, string>>({}); // by line, what was said here
  const [profile, setProfile] = useState(looked.profile);
  const uses = usesOf(looked);
  const tries = Object.fromEntries(
    looked.lines.map(({ line, try_id }) => [line, own[line] ?? try_id ?? ""]).filter(([, id]) => id),
  ) as Record<string, string>;
  const chosen = Object.values(tries);
  const twice = chosen.find((id, i) => chosen.indexOf(id) !== i);
  const had = ladder.tries.filter((each) => each.has_shot);
  const replaced = had.filter(({ id }) => chosen.includes(id)).length;
  const path = { id: ladder.id };
  const now = (found: Ladder) => queries.setQueryData(hourQuery(ladder.id).queryKey, found);
  const take = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/hours/{id}/shots", {
          params: { path },
          body: {
            file_name: file.name.slice(0, 120),
            text: file.text,
            columns: uses,
            decimal: looked.decimal,
            tries,
            profile: profile.trim(),
          },
        }),
      ),
    onSuccess: (found) => {
      now(found);
      queries.invalidateQueries({ queryKey: launchProfilesQuery.queryKey });
      const forget = () =>
        got(api.DELETE("/api/hours/{id}/shots", { params: { path } }))
          .then(now)
          .catch(failed);
      // What was replaced cannot be brought back, and was said before.
      if (!had.length)
        done(`${chosen.length} ${chosen.length === 1 ? "shot is" : "shots are"} taken in.`, forget);
      close();
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        take.mutate();
      }}
    >
      {looked.profile && <p className="mb-2 text-sm">Known as {looked.profile}.</p>}
      <LaunchColumns looked={looked} change={(columns) => look(columns, looked.decimal)} />
      <Field label="Decimals stand behind">
        <select
          className="select w-full"
          value={looked.decimal}
          onChange={(event) => look(uses, event.target.value as Decimal)}
        >
          <option value=".">a point: 12.5</option>
          <option value=",">a comma: 12,5</option>
        </select>
      </Field>
      {looked.trouble ? (
        <Trouble error={new Error(looked.trouble)} />
      ) : (
        <LaunchLines
          looked={looked}
          ladder={ladder}
          units={units}
          tries={tries}
          put={(line, id) => setOwn((before) => ({ ...before, [line]: id }))}
        />
      )}
      <Field
        label="Keep what the columns are as"
        hint="The next table with these columns is understood by itself. Left empty, it is not kept."
      >
        <input
          className="input w-full"
          maxLength={80}
          value={profile}
          onChange={(event) => setProfile(event.target.value)}
        />
      </Field>
      {twice && <p role="status">Two lines are said to be the shot of one try.</p>}
      {replaced > 0 && (
        <p className="mb-2 border-l-4 border-brass pl-2 text-sm" role="status">
          {replaced} of these tries {replaced === 1 ? "has a shot" : "have shots"} already; this replaces{" "}
          {replaced === 1 ? "it" : "them"}.
        </p>
      )}
      {take.error && <Trouble error={take.error} />}
      <button
        type="submit"
        className="btn btn-primary w-full"
        disabled={take.isPending || Boolean(looked.trouble) || Boolean(twice) || chosen.length === 0}
      >
        Take in {chosen.length} {chosen.length === 1 ? "shot" : "shots"}
      </button>
    </form>
  );
}

/** Tables that are known, to be forgotten where what was said is wrong. */
function Profiles() {
  const queries = useQueryClient();
  const profiles = useQuery(launchProfilesQuery);
  const forget = useMutation({
    mutationFn: (id: string) => got(api.DELETE("/api/launch-profiles/{id}", { params: { path: { id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: launchProfilesQuery.queryKey }),
  });
  if (!profiles.data?.length) return null;
  return (
    <section aria-label="Tables that are known">
      <h3 className="mb-1 text-sm font-medium">Tables that are known</h3>
      <ul className="text-sm">
        {profiles.data.map(({ id, name }) => (
          <li key={id} className="flex items-center justify-between gap-2">
            {name}
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              onClick={() => forget.mutate(id)}
              disabled={forget.isPending}
            >
              <Trash2 size={14} aria-hidden /> Forget<span className="sr-only"> {name}</span>
            </button>
          </li>
        ))}
      </ul>
      {forget.error && <Trouble error={forget.error} />}
    </section>
  );
}
