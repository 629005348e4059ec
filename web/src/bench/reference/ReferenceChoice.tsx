import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { swingsQuery } from "../../api/queries";
import { Sheet } from "../../parts/Sheet";
import { day } from "../../parts/when";
import type { BenchSwing } from "../benchState";
import { hasViews, type ReferenceOf } from "./useReference";

const ANOTHER = "another";

/** Chooses what stands beside the student: what fits first, the student's own past, and others' only on purpose. */
export function ReferenceChoice({ swing, reference }: { swing: BenchSwing; reference: ReferenceOf }) {
  const [asking, setAsking] = useState(false);
  const { student, before } = swing;
  const { id, shelf } = reference;
  const fits = shelf.filter(
    (each) => each.teaching_model === student?.teaching_model && each.hand === swing.hand,
  );
  const others = shelf.filter((each) => !fits.includes(each));
  const strange =
    id !== "" &&
    id !== swing.id &&
    !shelf.some((each) => each.swing_id === id) &&
    !before.some((b) => b.id === id);
  return (
    <>
      <select
        className="select select-sm w-44"
        aria-label="Reference"
        title="What stands beside the student"
        value={id}
        onChange={(event) => {
          if (event.target.value === ANOTHER) setAsking(true);
          else reference.choose(event.target.value);
        }}
      >
        <option value="">Nothing beside</option>
        {hasViews(swing) && <option value={swing.id}>Its other view</option>}
        {fits.length > 0 && (
          <optgroup label="Fits the student's model and hand">
            {fits.map((each) => (
              <option key={each.id} value={each.swing_id}>
                {each.name}
              </option>
            ))}
          </optgroup>
        )}
        {before.length > 0 && (
          <optgroup label={`${student?.name}, earlier`}>
            {before.map((each) => (
              <option key={each.id} value={each.id}>
                {day(each.received_at)}, {each.club}
              </option>
            ))}
          </optgroup>
        )}
        {others.length > 0 && (
          <optgroup label="Others of the shelf">
            {others.map((each) => (
              <option key={each.id} value={each.swing_id}>
                {each.name}
              </option>
            ))}
          </optgroup>
        )}
        {strange && <option value={id}>{reference.swing?.title ?? "Another student's swing"}</option>}
        <option value={ANOTHER}>Another student's swing…</option>
      </select>
      {asking && (
        <Sheet title="Another student's swing" close={() => setAsking(false)}>
          <AnotherStudent
            not={student?.id ?? ""}
            choose={(swingId) => {
              reference.choose(swingId);
              setAsking(false);
            }}
          />
        </Sheet>
      )}
    </>
  );
}

/** The swings of other students, found by name. */
function AnotherStudent({ not, choose }: { not: string; choose: (swingId: string) => void }) {
  const [wanted, setWanted] = useState("");
  const swings = useQuery(swingsQuery({ q: wanted.trim(), order: "name" }));
  const found = (swings.data?.items ?? []).filter(
    ({ student, clips }) => student.id !== not && clips.some((clip) => clip.state === "ready"),
  );
  return (
    <div className="grid gap-2">
      <p className="text-sm">
        Another student is no model: choose one only to compare on purpose. Nothing of it goes into a lesson
        unless you put it there.
      </p>
      <input
        className="input input-sm w-full"
        aria-label="Name"
        placeholder="Name"
        value={wanted}
        onChange={(event) => setWanted(event.target.value)}
      />
      <ul className="grid gap-1">
        {found.map((each) => (
          <li key={each.id}>
            <button
              type="button"
              className="btn btn-sm w-full justify-start font-normal"
              onClick={() => choose(each.id)}
            >
              {each.student.name} <span className="ml-auto">{day(each.received_at)}</span>
            </button>
          </li>
        ))}
      </ul>
      {swings.data && found.length === 0 && <p className="text-sm">No other student's swing is ready.</p>}
      {swings.error && <p role="alert">{swings.error.message}</p>}
    </div>
  );
}
