import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Axis3d, Plus } from "lucide-react";
import { useState } from "react";
import { api, got } from "../api/client";
import { modelsQuery, type Reference, rangeModelsQuery, shelfQuery, stillOf } from "../api/queries";
import { useRemoval } from "../bin/useBin";
import { ListFoot } from "../lists/ListFoot";
import { ListHead } from "../lists/ListHead";
import { useList } from "../lists/useList";
import { BenchLink } from "../parts/BenchLink";
import { ClipCard } from "../parts/ClipCard";
import { Field } from "../parts/Field";
import { KeptNote } from "../parts/KeptNote";
import { Empty, Page } from "../parts/Page";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { useKeptForm } from "../parts/useKeptForm";
import { AddView } from "../send/AddView";
import { ClipPicker } from "../send/ClipPicker";
import { useClipUploads } from "../send/clipUploads";
import { HandInButton } from "../send/HandInButton";
import { KindFields, kindOf } from "../send/KindFields";
import { OneSwing, oneSwingOf } from "../send/OneSwing";
import { useHandIn } from "../send/useHandIn";
import { SHELF } from "../send/whom";
import { kindWords } from "../words";
import { FromLaboratory } from "./FromLaboratory";

/** The reference swings to compare with. */
export function Shelf() {
  const list = useList();
  const { q, limit, offset } = list.wanted;
  const shelf = useQuery(shelfQuery({ q, limit, offset }));
  const [adding, setAdding] = useState<"clips" | "laboratory" | null>(null);
  return (
    <Page
      title="Shelf of reference swings"
      actions={
        <>
          <button type="button" className="btn btn-sm" onClick={() => setAdding("laboratory")}>
            <Axis3d size={16} aria-hidden /> From a laboratory
          </button>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => setAdding("clips")}>
            <Plus size={16} aria-hidden /> New reference
          </button>
        </>
      }
    >
      {shelf.error && !shelf.data && <Trouble error={shelf.error} retry={shelf.refetch} />}
      <ListHead list={list} what="references" />
      {shelf.data?.count === 0 && (
        <Empty>
          {q ? "No reference is found by that." : "The shelf is empty. Add a swing you like to compare with."}
        </Empty>
      )}
      <RangeModels />
      <ul className="grid gap-3 sm:grid-cols-2">
        {shelf.data?.items.map((reference) => (
          <ReferenceCard key={reference.id} reference={reference} />
        ))}
      </ul>
      {shelf.data && <ListFoot list={list} count={shelf.data.count} />}
      {adding === "clips" && <NewReference close={() => setAdding(null)} />}
      {adding === "laboratory" && <FromLaboratory close={() => setAdding(null)} />}
    </Page>
  );
}

function ReferenceCard({ reference }: { reference: Reference }) {
  const remove = useRemoval(
    "swing",
    reference.name,
    () => got(api.DELETE("/api/shelf/{id}", { params: { path: { id: reference.id } } })),
    reference.swing_id,
  );
  const clip = reference.clips[0];
  return (
    <li className="plate flex gap-3 border-l-4 border-l-slate p-3">
      <div className="h-28 w-24 shrink-0 overflow-hidden rounded-sm bg-dusk">
        {clip?.state === "ready" && (
          <img
            className="h-full w-full object-cover"
            src={stillOf(clip, 0, 300)}
            alt={`First frame of ${reference.name}`}
          />
        )}
      </div>
      <div className="min-w-0">
        <h2 className="font-semibold">{reference.name}</h2>
        <p className="text-sm">
          {reference.hand}-handed · {kindWords(reference)}
        </p>
        <p className="text-sm opacity-85">{reference.about}</p>
        {reference.clips.map((each) => (
          <p key={each.id}>
            <ClipCard clip={each} refreshes="shelf" />
          </p>
        ))}
        <div className="mt-2 flex gap-2">
          {clip?.state === "ready" && (
            <BenchLink className="btn btn-sm" id={reference.swing_id}>
              Peg and mark
            </BenchLink>
          )}
          <AddView
            swingId={reference.swing_id}
            whom={SHELF}
            title={reference.name}
            clips={reference.clips}
            refreshes="shelf"
          />
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => remove.mutate()}>
            Take off<span className="sr-only"> {reference.name}</span>
          </button>
        </div>
      </div>
    </li>
  );
}

/** The sound swings that come along, for a shelf that lacks them. */
function RangeModels() {
  const queries = useQueryClient();
  const models = useQuery(rangeModelsQuery);
  const take = useMutation({
    mutationFn: () => got(api.POST("/api/range-models")),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (!models.data?.length) return null;
  return (
    <section aria-label="Range models" className="plate mt-3 mb-3 border-dashed p-4">
      <p className="text-sm">
        {models.data.length === 1 ? "One sound swing comes" : `${models.data.length} sound swings come`} with
        Tropometer, drawn, pegged and marked: {models.data.map((each) => each.name).join("; ")}.
      </p>
      {take.error && <Trouble error={take.error} />}
      <button
        type="button"
        className="btn btn-sm mt-2"
        disabled={take.isPending}
        onClick={() => take.mutate()}
      >
        Put them on the shelf
      </button>
    </section>
  );
}

function NewReference({ close }: { close: () => void }) {
  const uploads = useClipUploads("/api/uploads");
  const models = useQuery(modelsQuery);
  const kept = useKeptForm("reference", models.isSuccess);
  const state = useHandIn(uploads, "shelf", close, kept);
  return (
    <Sheet title="New reference" close={close}>
      <form
        key={kept.round}
        {...kept.form}
        onSubmit={(event) => {
          event.preventDefault();
          const data = new FormData(event.currentTarget);
          const body = {
            name: String(data.get("name")),
            about: String(data.get("about")),
            hand: data.get("hand") as Reference["hand"],
            teaching_model: String(data.get("teaching_model")),
            ...kindOf(event.currentTarget),
            one_swing: oneSwingOf(event.currentTarget),
            clips: uploads.clips(),
          };
          state.handIn(() => got(api.POST("/api/shelf", { body })));
        }}
      >
        <KeptNote kept={kept} />
        <Field label="Name">
          <input className="input w-full" name="name" required maxLength={120} />
        </Field>
        <Field label="What it shows">
          <input className="input w-full" name="about" maxLength={400} />
        </Field>
        <Field label="Plays">
          <select className="select w-full" name="hand" defaultValue="right">
            <option value="right">Right-handed</option>
            <option value="left">Left-handed</option>
          </select>
        </Field>
        <Field label="Shows the teaching model" hint="It is offered first for students who are taught by it.">
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
        <ClipPicker uploads={uploads} />
        {uploads.bothViews && <OneSwing />}
        <HandInButton state={state} label="Put on the shelf" close={close} />
      </form>
    </Sheet>
  );
}
