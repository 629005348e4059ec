import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { budgetsQuery, matSizesQuery } from "../../api/queries";
import { LengthField } from "../../parts/LengthField";
import { shown, type Units } from "../../units";
import { type Hand, momentWords, READING_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf, type Side, type SideState } from "../benchState";
import type { ClipMarks, Mat } from "../edits";
import { FactsFields } from "./FactsFields";
import { LONGEST_M } from "./longest";

const SIZES: [string, number, number][] = [
  ["1.5 × 1.5 m", 1.5, 1.5],
  ["1.56 × 1.56 m", 1.56, 1.56],
  ["1.5 × 1.2 m", 1.5, 1.2],
  ["1.2 × 1.2 m", 1.2, 1.2],
  ["5 × 5 ft", 1.524, 1.524],
  ["5 × 4 ft", 1.524, 1.219],
  ["2 sticks, 48 in, a metre apart", 1.219, 1.0],
];

const SIDES = ["along_m", "across_m"] as const;
type Size = Partial<Record<(typeof SIDES)[number], number>>;
type View = SideState["clip"]["view"];
type Camera = NonNullable<ClipMarks["camera"]>;

/** How large the mat is, and where the camera stood that saw it so. */
export function CameraPanel(props: { side: Side; state: SideState; mat: Mat; units: Units }) {
  const { side, state, mat, units } = props;
  const on = onOf(state);
  const edit = useBench((bench) => bench.edit);
  const [half, setHalf] = useState<Size>({}); // one side is said, the other is still to be typed
  const unsaid = mat.along_m == null || mat.across_m == null;
  const change = (value: Partial<Mat>) => edit(side, { kind: "mat", value: { ...mat, ...value } });
  const size = (along_m: number, across_m: number) => change({ along_m, across_m });
  const keep = (said: Size) => {
    const [a, b] = SIDES.map((name) => said[name] ?? half[name] ?? mat[name]);
    if (a != null && b != null) size(a, b);
    else setHalf({ ...half, ...said });
  };
  const known = SIZES.findIndex(([, a, b]) => a === mat.along_m && b === mat.across_m);
  return (
    <form
      className="plate grid gap-1.5 p-2 text-sm"
      aria-label={`Mat and camera, ${side}`}
      onSubmit={(event) => event.preventDefault()}
    >
      <h2 className="font-semibold">Mat and camera</h2>
      {unsaid && <SizeAsked clipId={state.clip.id} units={units} take={change} />}
      <select
        className="select select-xs w-full"
        aria-label="Size of the mat"
        value={known}
        onChange={(event) => {
          const chosen = SIZES[Number(event.target.value)];
          if (chosen) size(chosen[1], chosen[2]);
        }}
      >
        <option value={-1}>{unsaid ? "Choose its size…" : "Its own size"}</option>
        {SIZES.map(([words], i) => (
          <option key={words} value={i}>
            {words}
          </option>
        ))}
      </select>
      <div className="flex items-center gap-2 text-xs">
        {SIDES.map((name) => (
          <LengthField
            key={name}
            label={name === "along_m" ? "along" : "across"}
            value={mat[name] ?? half[name] ?? null}
            units={units}
            {...LONGEST_M}
            keep={(length_m) => length_m !== null && keep({ [name]: length_m })}
          />
        ))}
      </div>
      <PlaceField key={mat.place} place={mat.place ?? ""} keep={(place) => change({ place })} />
      <FactsFields side={side} state={state} units={units} />
      {on.camera_trouble && <p role="alert">{on.camera_trouble}</p>}
      {on.camera && !unsaid && (
        <Audit camera={on.camera} mat={mat} view={state.clip.view} hand={state.swing.hand} />
      )}
      <Effect state={state} units={units} />
    </form>
  );
}

/** Asks how large the mat is: nothing is measured by it before somebody has said so. */
function SizeAsked(props: { clipId: string; units: Units; take: (said: Partial<Mat>) => void }) {
  const { clipId, units, take } = props;
  const offered = useQuery(matSizesQuery(clipId)).data ?? [];
  const figure = (metres: number) => shown(metres, "m", units).toFixed(1);
  return (
    <div className="grid justify-items-start gap-1 border-l-4 border-brass pl-2">
      <p className="font-medium">How large is this mat?</p>
      {offered.map(({ along_m, across_m, place, said }) => (
        <button
          key={said}
          type="button"
          className="btn btn-xs"
          onClick={() => take({ along_m, across_m, place })}
        >
          <span className="num">
            {figure(along_m)} × {figure(across_m)} {units}
          </span>
          <span className="font-normal">{said}</span>
        </button>
      ))}
    </div>
  );
}

/** What the place is called in which the mat lies: its size is offered there the next time. */
function PlaceField({ place, keep }: { place: string; keep: (place: string) => void }) {
  const done = (said: string) => said.trim() !== place && keep(said.trim());
  return (
    <label className="flex items-center gap-1 text-xs whitespace-nowrap">
      lies in
      <input
        className="input input-xs min-w-0 flex-1"
        placeholder="the range's bay 4"
        maxLength={80}
        defaultValue={place}
        onBlur={(event) => done(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
    </label>
  );
}

const FIGURES: [
  keyof Camera & ("distance" | "height" | "off_square" | "tilt" | "roll"),
  string,
  string,
  number,
][] = [
  ["distance", "Distance", "m", 2],
  ["height", "Height", "m", 2],
  ["off_square", "Off square", "°", 1],
  ["tilt", "Looks down", "°", 1],
  ["roll", "Leans", "°", 1],
];

function Audit({ camera, mat, view, hand }: { camera: Camera; mat: Mat; view: View; hand: Hand }) {
  return (
    <>
      <div className="flex gap-2">
        <dl className="grid flex-1 grid-cols-[1fr_auto] content-start gap-x-2">
          {FIGURES.map(([name, words, unit, digits]) => (
            <div key={name} className="contents">
              <dt className="text-xs">{words}</dt>
              <dd className="num text-right text-xs">
                {camera[name].value.toFixed(digits)} ± {camera[name].u95.toFixed(digits)} {unit}
              </dd>
            </div>
          ))}
          {camera.mat_off && (
            <>
              <dt className="text-xs" title="By the stick at the ball; all is measured along that">
                Mat off line
              </dt>
              <dd className="num text-right text-xs">
                {camera.mat_off.value.toFixed(1)} ± {camera.mat_off.u95.toFixed(1)} °
              </dd>
            </>
          )}
        </dl>
        <Plan camera={camera} mat={mat} view={view} hand={hand} />
      </div>
      {camera.refilm.map((line) => (
        <p key={line} className="border-l-2 border-brass pl-2 text-xs">
          {line}
        </p>
      ))}
    </>
  );
}

/** How much of each reading's interval the camera's own error is. */
function Effect({ state, units }: { state: SideState; units: Units }) {
  const given = state.readings.filter(
    (reading) =>
      reading.u95 !== null &&
      reading.clips.includes(state.clip.id) &&
      reading.unit === "m" &&
      reading.band !== null,
  );
  const ids = [...new Set(given.map(({ reading }) => reading))];
  const budgets = useQuery({
    ...budgetsQuery(state.swing.id, state.state, ids),
    enabled: ids.length > 0,
  }).data;
  if (!given.length || !budgets) return null;
  return (
    <dl
      className="grid grid-cols-[1fr_auto] gap-x-2 text-xs"
      aria-label="What the camera does to the readings"
    >
      {given.map((reading) => {
        const found = budgets.find((each) => each.reading === reading.reading && each.at === reading.at);
        const share = found?.budget.find((each) => each.source === "camera")?.share ?? 0;
        const figure = (metres: number) => shown(metres, "m", units).toFixed(1);
        return (
          <div key={`${reading.reading} ${reading.at}`} className="contents">
            <dt>
              {READING_WORDS[reading.reading]}, {momentWords(reading.at).toLowerCase()}
            </dt>
            <dd className="num text-right">
              ±{figure((reading.u95 ?? 0) * Math.sqrt(share))} of ±{figure(reading.u95 ?? 0)} {units}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

const PLAN_PX = 96;
// Right and up on the plan, before a right-hander's camera: face-on the target, and away from the ball.
const LIE: Record<View, (t: number, b: number) => { right: number; up: number }> = {
  face_on: (t, b) => ({ right: t, up: -b }),
  from_behind: (t, b) => ({ right: -t, up: b }),
  down_the_line: (t, b) => ({ right: b, up: t }),
  up_the_line: (t, b) => ({ right: -b, up: -t }),
};
const ROOM_M = 0.6;

/** The range from above, as it lies before the camera: mat, player, and where the camera stood. */
function Plan({ camera, mat, view, hand }: { camera: Camera; mat: Mat; view: View; hand: Hand }) {
  const mirror = hand === "right" ? 1 : -1;
  const lie = ({ t, b }: { t: number; b: number }) => {
    const { right, up } = LIE[view](t, b);
    return { right: mirror * right, up };
  };
  const [eye, player] = [lie(camera.eye), lie(camera.player)];
  const corner = lie({ t: (mat.along_m ?? 0) / 2, b: (mat.across_m ?? 0) / 2 });
  const half = { right: Math.abs(corner.right), up: Math.abs(corner.up) };
  const rights = [eye.right, player.right, -half.right, half.right];
  const ups = [eye.up, player.up, -half.up, half.up];
  const low = { right: Math.min(...rights) - ROOM_M, up: Math.min(...ups) - ROOM_M };
  const reach = Math.max(Math.max(...rights) + ROOM_M - low.right, Math.max(...ups) + ROOM_M - low.up);
  const x = (right: number) => ((right - low.right) / reach) * PLAN_PX;
  const y = (up: number) => PLAN_PX - ((up - low.up) / reach) * PLAN_PX;
  return (
    <svg
      width={PLAN_PX}
      height={PLAN_PX}
      role="img"
      aria-label="Plan of where the camera stood before mat and player"
      className="shrink-0 rounded-sm bg-base-200"
    >
      <rect
        x={x(-half.right)}
        y={y(half.up)}
        width={x(half.right) - x(-half.right)}
        height={y(-half.up) - y(half.up)}
        fill="none"
        stroke="currentColor"
        strokeOpacity={0.6}
      />
      <line
        x1={x(eye.right)}
        y1={y(eye.up)}
        x2={x(player.right)}
        y2={y(player.up)}
        stroke="var(--color-accent)"
        strokeDasharray="3 3"
      />
      <circle cx={x(player.right)} cy={y(player.up)} r={3.5} fill="var(--student)" />
      <rect x={x(eye.right) - 4} y={y(eye.up) - 3} width={8} height={6} fill="currentColor" />
    </svg>
  );
}
