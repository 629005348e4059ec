import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { markerProfilesQuery, modelsQuery } from "../api/queries";
import { Field } from "../parts/Field";
import { FileButton } from "../parts/FileButton";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { KindFields, kindOf } from "../send/KindFields";
import { MARK_WORDS } from "../words";
import { MarkerTable } from "./MarkerTable";
import { AXES, type Axis, axisWords, type Hand, type Meaning, missing } from "./markers";

type Looked = Schemas["MarkersOut"];

const formOf = (parts: Record<string, string | File>) => {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts)) form.append(name, part);
  return form;
};

/** A swing that a movement laboratory recorded as markers, taken in as a reference. */
export function FromLaboratory({ close }: { close: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  const look = useMutation({
    mutationFn: (chosen: File) =>
      got(
        api.POST("/api/shelf/laboratory/look", {
          body: { file: "" },
          bodySerializer: () => formOf({ file: chosen }),
        }),
      ),
  });
  const choose = (chosen: File) => {
    setFile(chosen);
    look.mutate(chosen);
  };
  return (
    <Sheet title="From a laboratory" close={close}>
      <p className="mb-3 text-sm">
        A C3D file or a TRC table of markers. It is drawn as a figure from the front and down the line, with a
        mark on every frame, and stands beside a student like any other reference.
      </p>
      <div className="mb-3 flex items-center gap-2">
        <FileButton accept=".c3d,.trc" pending={look.isPending} choose={choose} size="btn-sm">
          {file ? "Choose another file" : "Choose the file"}
        </FileButton>
        {file && <span className="min-w-0 truncate text-sm">{file.name}</span>}
      </div>
      {look.error && <Trouble error={look.error} />}
      {file && look.data && (
        <MeaningForm key={file.name + file.lastModified} file={file} looked={look.data} close={close} />
      )}
      {!look.data && <Profiles />}
    </Sheet>
  );
}

function MeaningForm({ file, looked, close }: { file: File; looked: Looked; close: () => void }) {
  const queries = useQueryClient();
  const models = useQuery(modelsQuery);
  const [hand, setHand] = useState<Hand>("right");
  const [changed, setChanged] = useState<Partial<Record<Hand, Meaning>>>({});
  const meant = looked.meant.find((each) => each.hand === hand);
  const take = useMutation({
    mutationFn: (about: Schemas["RecordedIn"]) =>
      got(
        api.POST("/api/shelf/laboratory", {
          body: { file: "", about },
          bodySerializer: () => formOf({ file, about: JSON.stringify(about) }),
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      await queries.invalidateQueries({ queryKey: markerProfilesQuery.queryKey });
      close();
    },
  });
  if (!meant) return null;
  const { marks, up, toward, profile } = meant;
  const meaning = changed[hand] ?? { marks, up, toward };
  const change = (anew: Meaning) => setChanged((before) => ({ ...before, [hand]: anew }));
  const lacks = missing(meaning);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const text = (name: string) => String(data.get(name) ?? "").trim();
        take.mutate({
          name: text("name"),
          about: text("about"),
          hand,
          teaching_model: text("teaching_model"),
          ...kindOf(event.currentTarget),
          meaning,
          profile: text("profile"),
        });
      }}
    >
      <p className="mb-3 text-sm" role="status">
        <span className="num">{looked.markers.length}</span> markers on{" "}
        <span className="num">{looked.frames}</span> frames,{" "}
        <span className="num">{Math.round(looked.rate_hz)}</span> a second
        {profile ? `; known as ${profile}.` : "."}
      </p>
      <Field label="Name">
        <input className="input w-full" name="name" required maxLength={120} />
      </Field>
      <Field label="What it shows">
        <input className="input w-full" name="about" maxLength={400} />
      </Field>
      <Field label="Plays">
        <select
          className="select w-full"
          value={hand}
          onChange={(event) => setHand(event.target.value as Hand)}
        >
          <option value="right">Right-handed</option>
          <option value="left">Left-handed</option>
        </select>
      </Field>
      <Field label="Shows the teaching model">
        <select className="select w-full" name="teaching_model" defaultValue="">
          <option value="">None in particular</option>
          {models.data?.map((model) => (
            <option key={model.id} value={model.id}>
              {model.name}
            </option>
          ))}
        </select>
      </Field>
      <KindFields />
      <div className="grid grid-cols-2 gap-3">
        <AxisField label="Up is" value={meaning.up} change={(up) => change({ ...meaning, up })} />
        <AxisField
          label="The target lies at"
          value={meaning.toward}
          change={(toward) => change({ ...meaning, toward })}
        />
      </div>
      <MarkerTable markers={looked.markers} meaning={meaning} change={change} />
      <Field
        label="Keep what they stand for as"
        hint="The next file with these markers is understood by itself. Left empty, it is not kept."
      >
        <input className="input w-full" name="profile" maxLength={80} defaultValue={profile} />
      </Field>
      {lacks.length > 0 && (
        <p className="mb-3 border-l-4 border-brass pl-2 text-sm" role="status">
          Say yet what stands for: {lacks.map((name) => MARK_WORDS[name]?.toLowerCase()).join(", ")}.
        </p>
      )}
      {take.error && <Trouble error={take.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={take.isPending || lacks.length > 0}>
        {take.isPending ? "Being taken in …" : "Put on the shelf"}
      </button>
    </form>
  );
}

function AxisField(props: { label: string; value: Axis; change: (axis: Axis) => void }) {
  return (
    <Field label={props.label}>
      <select
        className="select num w-full"
        value={props.value}
        onChange={(event) => props.change(event.target.value as Axis)}
      >
        {AXES.map((axis) => (
          <option key={axis} value={axis}>
            {axisWords(axis)}
          </option>
        ))}
      </select>
    </Field>
  );
}

/** What was said of markers before, to be forgotten where it is wrong. */
function Profiles() {
  const queries = useQueryClient();
  const profiles = useQuery(markerProfilesQuery);
  const forget = useMutation({
    mutationFn: (id: string) =>
      got(api.DELETE("/api/shelf/laboratory/profiles/{id}", { params: { path: { id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: markerProfilesQuery.queryKey }),
  });
  if (!profiles.data?.length) return null;
  return (
    <section aria-label="Markers that are known">
      <h3 className="mb-1 text-sm font-medium">Markers that are known</h3>
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
