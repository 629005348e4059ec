import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { BookmarkPlus, Keyboard } from "lucide-react";
import { useCallback, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, got, type Schemas } from "../api/client";
import {
  historyQuery,
  meQuery,
  type Reference,
  roundQuery,
  schoolsQuery,
  shelfQuery,
  swingQuery,
} from "../api/queries";
import { onTaken, outbox, useOutbox } from "../outbox";
import { KeepInMind } from "../parts/KeepInMind";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { day } from "../parts/when";
import type { Units } from "../units";
import { BenchContext, useBench } from "./benchContext";
import { KNOWN_LENGTH, MAT, OTHER, type Side as SideName } from "./benchState";
import { type Bench as BenchOf, createBench } from "./benchStore";
import { ExportMenu } from "./ExportMenu";
import { onOtherTabs, unsentOn } from "./edits";
import { CameraPanel } from "./ground/CameraPanel";
import { CarryOver } from "./ground/CarryOver";
import { KnownLengthPanel } from "./ground/KnownLengthPanel";
import { KEYS, useKeys } from "./keys";
import { DoubtQueue } from "./marks/DoubtQueue";
import { HandTestButton } from "./marks/HandTest";
import { MarkRail } from "./marks/MarkRail";
import { RoundPanel } from "./marks/RoundPanel";
import { Notice } from "./Notice";
import { FloorPlate } from "./readings/FloorPlate";
import { GaugeMenu } from "./readings/GaugeMenu";
import { ReadingsPanel } from "./readings/ReadingsPanel";
import { EventList } from "./rule/EventList";
import { SwingRule } from "./rule/SwingRule";
import { Transport } from "./rule/Transport";
import { usePlay } from "./rule/usePlay";
import { WindowMenu } from "./rule/WindowMenu";
import { Stage } from "./stage/Stage";
import { StageTools } from "./stage/StageTools";
import { recall, remember } from "./standing";
import { Whole } from "./whole/Whole";
import { WholeTools } from "./whole/WholeTools";

/** A student's swing on the bench, a reference beside it. */
export function Bench() {
  const { id = "" } = useParams();
  return <OpenBench key={id} id={id} />;
}

function OpenBench({ id }: { id: string }) {
  const [stood] = useState(() => recall(id));
  const [bench] = useState(() => createBench(stood));
  const swing = useQuery(swingQuery(id));
  const shelf = useQuery(shelfQuery);
  const [chosen, setChosen] = useState<string | null>(null);
  const own = swing.data?.student === null;
  const usable = shelf.data?.filter((each) => each.clips.some((clip) => clip.state === "ready"));
  const student = swing.data?.student;
  const earlierSwings = swing.data?.before ?? [];
  const stoodBefore = stood.places.reference?.swingId;
  const still = [...(usable ?? []).map((each) => each.swing_id), ...earlierSwings.map((each) => each.id)];
  const fitting = bestFit(usable ?? [], student?.school ?? "", swing.data?.hand);
  const before = still.find((id) => id === stoodBefore);
  const referenceId = own ? "" : (chosen ?? before ?? fitting?.swing_id ?? "");
  const reference = useQuery({ ...swingQuery(referenceId), enabled: referenceId !== "" });

  useEffect(() => {
    if (!swing.data) return;
    const side = swing.data.student ? "student" : "reference";
    const { sides, open, refresh, set } = bench.getState();
    if (sides[side]) refresh(side, swing.data);
    else {
      open(side, swing.data, false);
      if (!bench.getState().sides[bench.getState().active]) set({ active: side });
    }
  }, [bench, swing.data]);
  useEffect(() => {
    if (!reference.data || !swing.data?.student) return;
    const { sides, open, refresh } = bench.getState();
    if (sides.reference?.swing.id === reference.data.id) refresh("reference", reference.data);
    else open("reference", reference.data, reference.data.hand !== swing.data.hand);
  }, [bench, reference.data, swing.data]);
  const wanted = useQuery(roundQuery).data;
  useEffect(() => {
    if (wanted) bench.getState().set({ wanted });
  }, [bench, wanted]);
  const earlier = useQuery(historyQuery(id)).data;
  useEffect(() => {
    if (!earlier || !swing.data) return;
    const side = swing.data.student ? "student" : "reference";
    bench.getState().recallDone(earlier.map((each) => ({ ...each, side, clipId: each.clip_id })));
  }, [bench, earlier, swing.data]);
  const queries = useQueryClient();
  useEffect(
    () => onOtherTabs((changed) => void queries.invalidateQueries({ queryKey: ["swing", changed] })),
    [queries],
  );
  useEffect(() => {
    /** Fetch a stage anew that somebody else has changed; with marks unsent the answer would miss them. */
    const catchUp = () => {
      for (const side of Object.values(bench.getState().sides))
        if (side.behind && side.swing.clips.every((clip) => unsentOn(clip.id).length === 0))
          void queries.invalidateQueries({ queryKey: ["swing", side.swing.id] });
    };
    const stopHearing = onTaken((_, posts, answer) => {
      const [first] = posts;
      if (first?.kind !== "edit") return;
      bench.getState().taken(first.clipId, answer as Schemas["EditAnswer"], posts.length);
      catchUp();
    });
    const stopWatching = bench.subscribe(({ sides }, before) => {
      if (
        (["student", "reference"] as const).some((side) => sides[side]?.behind && !before.sides[side]?.behind)
      )
        catchUp();
    });
    return () => {
      stopHearing();
      stopWatching();
    };
  }, [bench, queries]);
  useEffect(() => remember(id, bench), [id, bench]);
  useEffect(() => () => bench.getState().leave(), [bench]);

  if (swing.error && !swing.data) return <Trouble error={swing.error} retry={swing.refetch} />;
  if (!swing.data) return <p className="p-6">Fetching the swing…</p>;
  if (!swing.data.clips.some((clip) => clip.state === "ready"))
    return <p className="p-6">This swing's clip is still being made ready. It opens by itself.</p>;
  return (
    <BenchContext value={bench}>
      <Workbench
        bench={bench}
        choice={
          own ? null : (
            <label className="flex items-center gap-2 text-sm">
              Reference
              <select
                className="select select-sm w-48"
                value={referenceId}
                onChange={(event) => setChosen(event.target.value)}
              >
                {referenceId === "" && <option value="">Nothing to compare with</option>}
                <optgroup label="Shelf">
                  {shelf.data?.map((each) => (
                    <option key={each.id} value={each.swing_id}>
                      {each.name}
                    </option>
                  ))}
                </optgroup>
                {earlierSwings.length > 0 && (
                  <optgroup label={`${student?.name}, earlier`}>
                    {earlierSwings.map((each) => (
                      <option key={each.id} value={each.id}>
                        {day(each.received_at)}, {each.club}
                      </option>
                    ))}
                  </optgroup>
                )}
              </select>
            </label>
          )
        }
      />
    </BenchContext>
  );
}

/** The reference that fits a student best: first by the teaching model, then by the hand. */
function bestFit(shelf: Reference[], school: string, hand?: string): Reference | undefined {
  const match = (each: Reference) => 2 * Number(each.school === school) + Number(each.hand === hand);
  return [...shelf].sort((a, b) => match(b) - match(a))[0];
}

function Workbench({ bench, choice }: { bench: BenchOf; choice: React.ReactNode }) {
  const units = useQuery(meQuery).data?.units ?? "cm";
  const schools = useQuery(schoolsQuery);
  const swing = useBench((state) => (state.sides.student ?? state.sides.reference)?.swing);
  const compared = useBench((state) => state.sides.reference !== undefined);
  const [help, setHelp] = useState(false);
  const student = swing?.student;
  const picking = usePick(bench);
  const showHelp = useCallback(() => setHelp(true), []);
  useKeys(bench, { pick: picking.pick, help: showHelp });
  const playing = useBench((state) => state.playing);
  usePlay(bench, playing);
  const solo = useBench((state) => state.solo);
  usePageTitle(swing ? [swing.title, swing.club].filter(Boolean).join(", ") : "");
  if (!swing) return null;
  const school = schools.data?.find((each) => each.id === student?.school)?.name;
  return (
    <div className="flex flex-col gap-2 p-2 lg:h-full lg:min-h-[700px]">
      <div className="flex min-h-8 shrink-0 flex-wrap items-center gap-3 lg:flex-nowrap">
        <h1 className="text-lg font-bold">
          {swing.title}
          <span className="ml-2 text-sm font-normal">
            {swing.club}
            {swing.parts > 1 && ` · swing ${swing.part} of ${swing.parts} in its clip`}
          </span>
        </h1>
        {swing.words && (
          <p className="min-w-0 flex-1 truncate text-sm italic opacity-85" title={swing.words}>
            “{swing.words}”
          </p>
        )}
        <span className="ml-auto" />
        <Notice />
        {choice}
        <WholeTools />
        <ExportMenu swingId={swing.id} units={units} />
        <button
          type="button"
          className="btn btn-sm btn-square"
          onClick={showHelp}
          aria-label="Keys"
          title="Keys (?)"
        >
          <Keyboard size={16} aria-hidden />
        </button>
      </div>
      <KeepInMind hurts={swing.what_hurts} history={student?.history ?? ""} />
      <div className="flex min-h-0 flex-1 flex-col gap-2 lg:flex-row">
        <div className="flex min-w-0 flex-1 flex-col gap-2">
          <div className="flex h-[62vh] min-h-0 shrink-0 gap-2 lg:h-auto lg:flex-1">
            <Side side="student" units={units} />
            <Side side="reference" units={units} />
            {!compared && !solo && (
              <div className="plate grid flex-1 place-items-center border-dashed p-6 text-center text-sm">
                <p>
                  No reference yet. Put one on the{" "}
                  <Link to="/shelf" className="link">
                    shelf
                  </Link>{" "}
                  to compare with.
                </p>
              </div>
            )}
          </div>
          <div className="flex shrink-0 flex-wrap items-center justify-between gap-2 lg:flex-nowrap">
            <Transport />
            <div className="flex items-center gap-1">
              <HandTestButton />
              <EventList />
              <GaugeMenu />
              <WindowMenu />
              <StageTools />
            </div>
          </div>
          <Whole units={units} />
          <SwingRule />
        </div>
        <div className="grid min-h-0 shrink-0 content-start items-start gap-2 md:max-lg:grid-cols-2 lg:flex lg:w-[300px] lg:flex-col lg:items-stretch lg:overflow-y-auto">
          <ActiveMat units={units} />
          <ActiveRound />
          <FloorPlate units={units} />
          <ReadingsPanel units={units} school={school} />
          <ActiveLength units={units} />
          <ActiveDoubts />
          {student && (
            <div className="mt-auto grid gap-1">
              <p className="min-h-5 text-sm" role="status">
                {picking.said}
              </p>
              <div className="flex gap-2">
                <button type="button" className="btn btn-sm flex-1" onClick={picking.pick}>
                  <BookmarkPlus size={16} aria-hidden /> Frame to lesson
                </button>
                <button type="button" className="btn btn-primary btn-sm flex-1" onClick={picking.openDesk}>
                  Lesson desk
                </button>
              </div>
            </div>
          )}
        </div>
      </div>
      {help && (
        <Sheet title="Keys on the bench" close={() => setHelp(false)}>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
            {KEYS.map(([key, does]) => (
              <div key={does} className="contents">
                <dt className="num text-sm font-semibold whitespace-nowrap">{key}</dt>
                <dd className="text-sm">{does}</dd>
              </div>
            ))}
          </dl>
        </Sheet>
      )}
    </div>
  );
}

/** A stage with its rail. */
function Side({ side, units }: { side: SideName; units: Units }) {
  const state = useBench((bench) => bench.sides[side]);
  const away = useBench((bench) => bench.solo && bench.active !== side);
  if (!state || away) return null;
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1">
      <Stage key={state.clip.id} side={side} state={state} units={units} />
      <MarkRail side={side} state={state} />
    </div>
  );
}

/** The mat of the stage that is worked on, and where its camera stood, while it is in hand. */
function ActiveMat({ units }: { units: Units }) {
  const active = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const inHand = useBench((bench) => bench.selected === MAT);
  const drawing = useBench((bench) => bench.tool === MAT);
  const mat = state?.on.mat;
  if (state && drawing && !mat) return <CarryOver key={state.clip.id} side={active} state={state} />;
  return mat && inHand ? (
    <CameraPanel key={state.clip.id} side={active} state={state} mat={mat} units={units} />
  ) : null;
}

/** The round of the stage that is worked on. */
function ActiveRound() {
  const active = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const aside = useBench((bench) => bench.selected === MAT);
  return state && !aside ? <RoundPanel side={active} state={state} /> : null;
}

/** The doubts about the stage that is worked on. */
function ActiveDoubts() {
  const active = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const aside = useBench((bench) => bench.selected === MAT);
  return state && !aside ? <DoubtQueue side={active} state={state} /> : null;
}

/** The known length of the stage that is worked on, while it is in hand. */
function ActiveLength({ units }: { units: Units }) {
  const active = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[active]);
  const inHand = useBench((bench) => bench.tool === KNOWN_LENGTH || bench.selected === KNOWN_LENGTH);
  const known = state?.on.calibration;
  return known && inHand ? (
    <KnownLengthPanel side={active} state={state} known={known} units={units} />
  ) : null;
}

/** Putting the active stage's frame into the swing's lesson. */
function usePick(bench: BenchOf) {
  const go = useNavigate();
  const [said, setSaid] = useState("");
  const lane = (swingId: string) => `lesson of ${swingId}`;
  const waits = useOutbox(({ waiting }) => {
    const swing = bench.getState().sides.student?.swing.id;
    return waiting > 0 && swing !== undefined && outbox().unsent(lane(swing)).length > 0;
  });
  useEffect(
    () =>
      onTaken((_, posts, answer) => {
        if (posts[0]?.kind !== "pick") return;
        const { frames } = answer as Schemas["LessonOut"];
        setSaid(`Frame ${posts[0].frame.frame} is in the lesson (${frames.length}).`);
      }),
    [],
  );
  const pick = useCallback(() => {
    const { sides, active, pinned } = bench.getState();
    const from = sides[active] ?? sides[OTHER[active]];
    const swing = sides.student?.swing;
    if (!from || !swing) return;
    const id = crypto.randomUUID();
    const frame = { id, clip_id: from.clip.id, frame: from.frame, words: "", gauges: pinned };
    const what = `frame ${from.frame} for the lesson`;
    outbox().add({
      id,
      lane: `lesson of ${swing.id}`,
      subject: id,
      what,
      post: { kind: "pick", swingId: swing.id, frame },
    });
  }, [bench]);
  const desk = useMutation({
    mutationFn: (swing_id: string) =>
      got(api.POST("/api/swings/{swing_id}/lesson", { params: { path: { swing_id } } })),
    onSuccess: ({ id }) => go(`/lessons/${id}`),
    onError: (error) => setSaid(error.message),
  });
  const openDesk = () => desk.mutate(bench.getState().sides.student?.swing.id ?? "");
  return { pick, openDesk, said: waits ? "The frame is on its way." : said };
}
