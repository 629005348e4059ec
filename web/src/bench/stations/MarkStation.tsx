import { useQuery } from "@tanstack/react-query";
import { meQuery } from "../../api/queries";
import type { Units } from "../../units";
import { useBench } from "../benchContext";
import { KNOWN_LENGTH, MAT, onOf } from "../benchState";
import { hint } from "../commands/table";
import { CameraPanel } from "../ground/CameraPanel";
import { CarryOver } from "../ground/CarryOver";
import { KnownLengthPanel } from "../ground/KnownLengthPanel";
import { DoubtQueue } from "../marks/DoubtQueue";
import { MarkBoard } from "../marks/MarkBoard";
import { RoundPanel } from "../marks/RoundPanel";
import { NextClick } from "../readings/NextClick";
import { EventList } from "../rule/EventList";
import { WindowMenu } from "../rule/WindowMenu";

/** Pegs, marks and ground of the stage that is worked on; what is in hand comes first. */
export function MarkStation({ units }: { units: Units }) {
  const side = useBench((bench) => bench.active);
  const state = useBench((bench) => bench.sides[bench.active]);
  const tool = useBench((bench) => bench.tool);
  const selected = useBench((bench) => bench.selected);
  const round = useBench((bench) => bench.round);
  if (!state) return null;
  const { mat, calibration } = onOf(state);
  const camera = mat && selected === MAT;
  const length = calibration && (tool === KNOWN_LENGTH || selected === KNOWN_LENGTH);
  return (
    <>
      {camera && <CameraPanel key={state.clip.id} side={side} state={state} mat={mat} units={units} />}
      <MarkBoard side={side} state={state} />
      {tool === MAT && !mat && <CarryOver key={state.clip.id} side={side} state={state} />}
      {length && <KnownLengthPanel side={side} state={state} known={calibration} units={units} />}
      {!camera && (
        <>
          <RoundPanel side={side} state={state} />
          {!round && <NextClick side={side} />}
          <DoubtQueue side={side} state={state} />
        </>
      )}
      <div className="mt-auto flex items-center gap-1">
        <EventList />
        <WindowMenu />
        <HandTestButton />
      </div>
    </>
  );
}

function HandTestButton() {
  const on = useBench((bench) => bench.handTest);
  const set = useBench((bench) => bench.set);
  const sd = useQuery(meQuery).data?.hand_sd_px;
  return (
    <button
      type="button"
      className={`btn btn-sm px-2 font-normal ${on ? "btn-primary" : ""}`}
      aria-pressed={on}
      title={`${sd ? `Your hand: ±${sd.toFixed(1)} px. ` : ""}${hint("hand_test")}`}
      onClick={() => set({ handTest: !on, tool: null, selected: null, round: false, playing: null })}
    >
      Test your hand
    </button>
  );
}
