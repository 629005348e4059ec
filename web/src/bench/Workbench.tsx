import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { meQuery, modelsQuery } from "../api/queries";
import { KeepInMind } from "../parts/KeepInMind";
import { useMedia } from "../parts/useMedia";
import { usePageTitle } from "../parts/usePageTitle";
import { useHurts } from "../students/useHurts";
import type { Units } from "../units";
import { useBench } from "./benchContext";
import type { Side as SideName } from "./benchState";
import type { Bench } from "./benchStore";
import { type Doings, perform, useDoing } from "./commands/doings";
import { KeysHelp } from "./commands/KeysHelp";
import { Palette } from "./commands/Palette";
import { commandOf, hint } from "./commands/table";
import { useKeys } from "./commands/useKeys";
import { ExportMenu } from "./ExportMenu";
import { ChainRow } from "./judging/ChainRow";
import { Notice } from "./Notice";
import { PegStrip } from "./rule/PegStrip";
import { Runner } from "./rule/Runner";
import { Stepping } from "./rule/Stepping";
import { SwingRule } from "./rule/SwingRule";
import { usePlay } from "./rule/usePlay";
import { SwingKind } from "./SwingKind";
import { Stage } from "./stage/Stage";
import { StageTools } from "./stage/StageTools";
import { JudgeStation } from "./stations/JudgeStation";
import { MarkStation } from "./stations/MarkStation";
import { ReadStation } from "./stations/ReadStation";
import { StationTabs } from "./stations/StationTabs";
import type { Station } from "./stations/stations";
import { TellStation } from "./stations/TellStation";
import { usePick } from "./usePick";
import { RecordingBar } from "./walk/RecordingBar";
import { Drawer } from "./whole/Drawer";

const WIDTHS: Record<Station, string> = {
  mark: "lg:w-[300px]",
  read: "lg:w-[316px]",
  judge: "lg:w-[400px]",
  tell: "lg:w-[344px]",
};

/** The open bench: the stages and their rule, and beside them what the station is for. */
export function Workbench({ bench, doings, choice }: { bench: Bench; doings: Doings; choice: ReactNode }) {
  const units = useQuery(meQuery).data?.units ?? "cm";
  const models = useQuery(modelsQuery);
  const swing = useBench((state) => (state.sides.student ?? state.sides.reference)?.swing);
  const compared = useBench((state) => state.sides.reference !== undefined);
  const station = useBench((state) => state.station);
  const solo = useBench((state) => state.solo);
  const playing = useBench((state) => state.playing);
  const wide = useMedia("(min-width: 64rem)");
  const stagesDrawn = useDeferredValue(true, false); // what is beside them is drawn while the clip opens
  const [over, setOver] = useState<"help" | "palette" | null>(null);
  const picking = usePick(bench);
  const hurts = useHurts(swing);
  useKeys(bench, doings);
  useDoing("pick", picking.pick);
  useDoing("help", () => setOver("help"));
  useDoing("palette", () => setOver("palette"));
  usePlay(bench, playing);
  usePageTitle(swing ? [swing.title, swing.club].filter(Boolean).join(", ") : "");
  if (!swing) return null;
  const model = models.data?.find((each) => each.id === swing.student?.teaching_model)?.name;
  const beside: Record<Station, ReactNode> = {
    mark: <MarkStation units={units} />,
    read: <ReadStation units={units} model={model} />,
    judge: <JudgeStation units={units} />,
    tell: <TellStation units={units} pick={picking.pick} said={picking.said} />,
  };
  return (
    <div className="flex flex-col gap-2 p-2 lg:h-full lg:min-h-[640px]">
      <TitleRow choice={wide && choice} wide={wide} help={() => setOver("help")} units={units} />
      {station !== "read" && (
        <KeepInMind hurts={hurts} history={swing.student?.history ?? ""} miss={swing.usual_miss} />
      )}
      <div className="flex min-h-0 flex-1 flex-col gap-2 lg:flex-row">
        <div className="flex min-w-0 flex-1 flex-col gap-2">
          <div className="relative flex h-[52vh] min-h-0 shrink-0 gap-2 lg:h-auto lg:flex-1">
            <Side side="student" units={units} />
            <Side side="reference" units={units} />
            {!compared && !solo && <NothingBeside />}
            <Notice />
          </div>
          <div className="flex shrink-0 flex-wrap items-center justify-between gap-1">
            {wide && <Stepping />}
            <Runner />
            <StageTools />
          </div>
          <RecordingBar />
          {station === "read" && <Drawer units={units} />}
          {station === "judge" && <ChainRow />}
          <SwingRule />
        </div>
        <div
          className={`relative flex min-h-0 shrink-0 flex-col gap-2 lg:overflow-y-auto ${WIDTHS[station]}`}
          data-station={station}
        >
          {stagesDrawn && beside[station]}
        </div>
      </div>
      {!wide && (
        <>
          <div className="flex flex-wrap items-center gap-2">
            {choice}
            <ExportMenu swingId={swing.id} units={units} />
          </div>
          {/* What is used most lies under the thumb. */}
          <div
            data-no-print
            className="sticky bottom-0 z-20 -mx-2 flex flex-wrap items-center justify-center gap-x-6 gap-y-1 border-t border-base-content/20 bg-base-200 px-2 py-1"
          >
            <Stepping />
            <StationTabs />
          </div>
        </>
      )}
      {over === "help" && <KeysHelp station={station} close={() => setOver(null)} />}
      {over === "palette" && (
        <Palette
          station={station}
          close={() => setOver(null)}
          choose={(id) => {
            const { at } = commandOf(id);
            if (at?.[0] && !at.includes(station)) bench.getState().goToStation(at[0]);
            // What the other station offers is on the screen a moment later.
            window.setTimeout(() => perform(bench, doings, id));
          }}
        />
      )}
    </div>
  );
}

function TitleRow(props: { choice: ReactNode; wide: boolean; help: () => void; units: Units }) {
  const { choice, wide, help, units } = props;
  const side = useBench((state) => (state.sides.student ? "student" : "reference"));
  const swing = useBench((state) => state.sides[side]?.swing);
  const undo = useBench((bench) => bench.undo);
  const redo = useBench((bench) => bench.redo);
  const canUndo = useBench((bench) => bench.done.length > 0);
  const canRedo = useBench((bench) => bench.undone.length > 0);
  if (!swing) return null;
  const plain = "btn btn-sm btn-ghost px-2 font-normal disabled:bg-transparent";
  return (
    <div className="flex min-h-9 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 lg:flex-nowrap">
      <h1 className="flex min-w-0 shrink items-baseline gap-2 text-lg font-bold whitespace-nowrap">
        <span className="min-w-0 truncate" title={swing.title}>
          {swing.title}
        </span>
        <SwingKind side={side} />
      </h1>
      {swing.words && (
        <p className="min-w-24 flex-1 truncate text-sm italic opacity-85 max-md:hidden" title={swing.words}>
          “{swing.words}”
        </p>
      )}
      <div className="ml-auto flex shrink-0 items-center gap-1">
        <button type="button" className={plain} onClick={undo} disabled={!canUndo} title={hint("undo")}>
          Undo
        </button>
        <button type="button" className={plain} onClick={redo} disabled={!canRedo} title={hint("redo")}>
          Redo
        </button>
        {wide && (
          <>
            <ExportMenu swingId={swing.id} units={units} />
            <button type="button" className={plain} onClick={help} title={hint("help")}>
              Keys
            </button>
            {choice}
          </>
        )}
      </div>
      {wide && <StationTabs />}
    </div>
  );
}

function NothingBeside() {
  return (
    <div className="plate grid flex-1 place-items-center border-dashed p-6 text-center text-sm">
      <p>
        Nothing stands beside. Choose a reference above, or put one on the{" "}
        <Link to="/shelf" className="link">
          shelf
        </Link>
        .
      </p>
    </div>
  );
}

/** A stage, and at Mark the strip of its pegs. */
function Side({ side, units }: { side: SideName; units: Units }) {
  const state = useBench((bench) => bench.sides[side]);
  const awake = useBench((bench) => bench.active === side);
  const solo = useBench((bench) => bench.solo);
  const phone = useMedia("(max-width: 47.9rem)");
  const marking = useBench((bench) => bench.station === "mark");
  // On a phone there is room for one: the one that is worked on.
  if (!state || ((solo || phone) && !awake)) return null;
  return (
    <div className="flex min-w-0 flex-1 flex-col gap-1">
      <Stage key={state.clip.id} side={side} state={state} units={units} />
      {marking && <PegStrip side={side} state={state} />}
    </div>
  );
}
