import { useQuery } from "@tanstack/react-query";
import { Plus, Trash2 } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import { api, got } from "../api/client";
import { bookQuery, meQuery, type SwingRow, stillOf, swingsQuery } from "../api/queries";
import { useRemoval } from "../bin/useBin";
import { BY_CLUB, BY_HAND, kindAsked } from "../lists/kinds";
import { ListFoot } from "../lists/ListFoot";
import { chosenFirst, ListHead } from "../lists/ListHead";
import { useList } from "../lists/useList";
import { BenchLink } from "../parts/BenchLink";
import { ClipCard } from "../parts/ClipCard";
import { Empty, Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";
import { AddView } from "../send/AddView";
import { useFilesOver } from "../send/useGivenFiles";
import { kindWords } from "../words";

import { FirstTapes } from "./FirstTapes";
import { NothingWaits } from "./NothingWaits";
import { WaitingStudents } from "./WaitingStudents";

const SendSwing = lazy(() => import("../send/SendSwing"));

const ORDERS = [
  ["newest", "Newest first"],
  ["oldest", "Oldest first"],
  ["name", "By student"],
] as const;

/** The swings that wait for an answer. */
export function Inbox() {
  const [sending, setSending] = useState(false);
  useFilesOver(() => setSending(true));
  const list = useList();
  const { q, limit, offset, said } = list.wanted;
  const answered = said("show") === "all";
  const hurting = said("show") === "hurting";
  const order = ORDERS.find(([each]) => each === said("order"))?.[0] ?? "newest";
  const faults = useQuery(bookQuery).data?.faults ?? [];
  const finding = said("finding");
  const asked = { ...kindAsked(list.wanted), ...(finding && { finding }) };
  const rows = useQuery(swingsQuery({ waiting: !answered, hurting, q, order, limit, offset, ...asked }));
  const none = rows.data?.count === 0;
  const searched = q !== "" || hurting || Object.keys(asked).length > 0;
  return (
    <Page
      title="Inbox"
      actions={
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setSending(true)}>
          <Plus size={16} aria-hidden /> New swing
        </button>
      }
    >
      {rows.error && !rows.data && <Trouble error={rows.error} retry={rows.refetch} />}
      <WaitingStudents />
      <ListHead
        list={list}
        what="swings"
        choices={[
          {
            name: "show",
            label: "Which swings",
            options: [
              ["", "Not answered yet"],
              ["hurting", "Not answered, something hurts"],
              ["all", "Answered too"],
            ],
          },
          { name: "order", label: "Order", options: chosenFirst(ORDERS) },
        ]}
        more={[
          BY_CLUB,
          BY_HAND,
          {
            name: "finding",
            label: "Finding",
            options: [["", "Any finding"], ...faults.map(({ id, name }): [string, string] => [id, name])],
          },
        ]}
        days
      />
      {none && searched && <Empty>No swing is found by that.</Empty>}
      {none && !searched && <NothingWaits answered={answered} />}
      <ol className="grid gap-3">
        {rows.data?.items.map((row) => (
          <SwingCard key={row.id} row={row} />
        ))}
      </ol>
      {rows.data && <ListFoot list={list} count={rows.data.count} />}
      {sending && (
        <Suspense>
          <SendSwing close={() => setSending(false)} />
        </Suspense>
      )}
    </Page>
  );
}

function SwingCard({ row }: { row: SwingRow }) {
  const clip = row.clips[0];
  const units = useQuery(meQuery).data?.units ?? "cm";
  const ready = row.clips.some((each) => each.state === "ready");
  return (
    <li className="plate grid grid-cols-[auto_1fr] gap-4 p-3 sm:grid-cols-[auto_1fr_auto]">
      <div className="h-28 w-24 overflow-hidden rounded-sm bg-dusk">
        {ready && clip && (
          <img
            className="h-full w-full object-cover"
            src={stillOf(clip, 0, 300)}
            alt={`First frame of ${row.student.name}'s clip`}
          />
        )}
      </div>
      <div className="min-w-0">
        <h2 className="text-lg font-semibold">
          {ready ? (
            <BenchLink className="hover:underline" id={row.id}>
              {row.student.name}
            </BenchLink>
          ) : (
            row.student.name
          )}{" "}
          <Link className="text-sm font-normal underline" to={`/students/${row.student.id}`}>
            card<span className="sr-only"> of {row.student.name}</span>
          </Link>
        </h2>
        <p className="text-sm">
          {kindWords(row)}
          {row.parts > 1 && ` · swing ${row.part} of ${row.parts} in its clip`} · {row.student.hand}-handed ·{" "}
          {when(row.received_at)}
          {row.answered_at && " · answered"}
        </p>
        {row.words && <blockquote className="mt-1 border-l-2 border-brass pl-2">{row.words}</blockquote>}
        <dl className="mt-1 flex flex-wrap gap-x-4 text-sm">
          {row.usual_miss && (
            <div className="flex gap-1">
              <dt className="font-medium">Usual miss:</dt>
              <dd>{row.usual_miss}</dd>
            </div>
          )}
          {row.camera_place && (
            <div className="flex gap-1">
              <dt className="font-medium">Camera:</dt>
              <dd>{row.camera_place}</dd>
            </div>
          )}
          {row.what_hurts && (
            <div className="flex gap-1">
              <dt className="font-medium">Hurts:</dt>
              <dd>{row.what_hurts}</dd>
            </div>
          )}
        </dl>
        <FirstTapes tapes={row.first_tapes} units={units} />
        <div className="mt-1 flex flex-wrap items-center gap-x-4">
          {row.clips.map((each) => (
            <ClipCard key={each.id} clip={each} refreshes="swings" />
          ))}
          <AddView
            swingId={row.id}
            whom={row.student.id}
            title={row.student.name}
            clips={row.clips}
            refreshes="swings"
          />
        </div>
      </div>
      <div className="flex items-end justify-between max-sm:col-span-2 sm:flex-col">
        {ready ? (
          <BenchLink className="btn btn-primary btn-sm" id={row.id}>
            Open on the bench
          </BenchLink>
        ) : (
          <span />
        )}
        <RemoveSwing row={row} />
      </div>
    </li>
  );
}

function RemoveSwing({ row }: { row: SwingRow }) {
  const remove = useRemoval(
    "swing",
    `${row.student.name}'s swing`,
    () => got(api.DELETE("/api/swings/{id}", { params: { path: { id: row.id } } })),
    row.id,
  );
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs"
      aria-label={`Remove ${row.student.name}'s swing`}
      disabled={remove.isPending}
      onClick={() => remove.mutate()}
    >
      <Trash2 size={14} aria-hidden />
    </button>
  );
}
