import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useParams } from "react-router";
import { useStore } from "zustand";
import { swingQuery } from "../api/queries";
import { haveReady } from "../frames/workers";
import { Trouble } from "../parts/Trouble";
import { useAddress } from "./address";
import { BenchContext, useBench } from "./benchContext";
import { type Bench as BenchOf, createBench } from "./benchStore";
import { Doings, DoingsContext } from "./commands/doings";
import { ReferenceChoice } from "./reference/ReferenceChoice";
import { useReference } from "./reference/useReference";
import { recall, remember } from "./standing";
import { useKept } from "./useKept";
import { Workbench } from "./Workbench";

const STAGES = 2;

/** A student's swing on the bench, a reference beside it. */
export function Bench() {
  const { id = "" } = useParams();
  return <OpenBench key={id} id={id} />;
}

function OpenBench({ id }: { id: string }) {
  const [stood] = useState(() => recall(id));
  const [bench] = useState(() => createBench(stood));
  const [doings] = useState(() => new Doings());
  useEffect(() => haveReady(STAGES), []);
  const swing = useQuery(swingQuery(id));
  const led = useStore(bench, (state) => state.led);
  const reference = useReference(swing.data, led, stood.places.reference?.swingId);
  useKept(bench, id, swing.data, reference);
  useEffect(() => remember(id, bench), [id, bench]);
  useEffect(() => () => bench.getState().leave(), [bench]);

  if (swing.error && !swing.data) return <Trouble error={swing.error} retry={swing.refetch} />;
  if (!swing.data) return <p className="p-6">Fetching the swing…</p>;
  if (!swing.data.clips.some((clip) => clip.state === "ready"))
    return <p className="p-6">This swing's clip is still being made ready. It opens by itself.</p>;
  return (
    <BenchContext value={bench}>
      <DoingsContext value={doings}>
        <Addressed bench={bench} />
        <Workbench
          bench={bench}
          doings={doings}
          choice={swing.data.student && <ReferenceChoice swing={swing.data} reference={reference} />}
        />
      </DoingsContext>
    </BenchContext>
  );
}

/** Keeps the address as the bench stands, by itself: nothing that is shown is drawn anew for it. */
function Addressed({ bench }: { bench: BenchOf }) {
  useAddress(
    bench,
    useBench(({ sides }) => (sides.student ?? sides.reference) !== undefined),
  );
  return null;
}
