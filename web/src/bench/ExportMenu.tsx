import { useState } from "react";
import { INK } from "../drawn/ink";
import type { Units } from "../units";
import { useBenchStore } from "./benchContext";
import { OTHER, onOf } from "./benchState";
import type { Bench } from "./benchStore";
import { Menu } from "./Menu";
import { stillPng, stillSvg } from "./StillPicture";
import { whose } from "./whose";

const FILES = [
  ["record", "json", "The swing record: marks, pegs and cameras"],
  ["readings.csv", "csv", "All readings, for a spreadsheet"],
  ["curves.csv", "csv", "Readings over time, for a spreadsheet"],
] as const;
const IN_SPACE = [
  ["c3d", "Marks in space, for a movement laboratory (C3D)"],
  ["trc", "The same as a table (TRC)"],
] as const;
const STILLS = [
  ["png", "This frame with its gauges, as a PNG"],
  ["svg", "This frame with its gauges, as an SVG"],
] as const;

/** What can be taken away from a swing. */
export function ExportMenu({ swingId, units }: { swingId: string; units: Units }) {
  const bench = useBenchStore();
  const [said, setSaid] = useState("");
  const take = (ending: "png" | "svg") => {
    setSaid("");
    takeStill(bench, ending, units).catch((error: Error) => setSaid(error.message));
  };
  return (
    <Menu command="export" words="Export" below>
      <ul className="grid w-72 gap-0.5 text-sm">
        {FILES.map(([path, ending, words]) => (
          <li key={path}>
            <a
              className="link block px-1 py-0.5"
              href={`/api/swings/${swingId}/${path}`}
              download={`${path.replace(/\.\w+$/, "")}-${swingId.slice(0, 8)}.${ending}`}
            >
              {words}
            </a>
          </li>
        ))}
        {IN_SPACE.map(([ending, words]) => (
          <li key={ending}>
            <button
              type="button"
              className="link block px-1 py-0.5 text-left"
              onClick={() => {
                setSaid("");
                takeMarks(swingId, ending).catch((error: Error) => setSaid(error.message));
              }}
            >
              {words}
            </button>
          </li>
        ))}
        {STILLS.map(([ending, words]) => (
          <li key={ending}>
            <button type="button" className="link block px-1 py-0.5" onClick={() => take(ending)}>
              {words}
            </button>
          </li>
        ))}
      </ul>
      {said && (
        <p role="alert" className="px-1 pt-1 text-sm">
          {said}
        </p>
      )}
    </Menu>
  );
}

/** Hand the active stage's frame to the browser as a file. */
async function takeStill(bench: Bench, ending: "png" | "svg", units: Units): Promise<void> {
  const { sides, stands, active, pinned, focus } = bench.getState();
  const side = sides[active] ? active : OTHER[active];
  const state = sides[side];
  if (!state) return;
  const looked = onOf(state).gauges.filter((gauge) =>
    gauge.shapes.some((shape) => shape.reading === focus?.reading),
  );
  const shown = [...pinned, ...looked.map((gauge) => gauge.id)];
  const still = await (ending === "png" ? stillPng : stillSvg)({
    state,
    frame: stands[side].frame,
    shown,
    units,
    ink: INK[whose(bench.getState(), side)],
  });
  save(still, `frame-${stands[side].frame}-${state.clip.view}-${state.swing.id.slice(0, 8)}.${ending}`);
}

/** The marks that both views saw; what is missing is said, and nothing is saved. */
async function takeMarks(swingId: string, ending: "c3d" | "trc"): Promise<void> {
  const answer = await fetch(`/api/swings/${swingId}/marks.${ending}`);
  if (!answer.ok) throw new Error((await answer.json()).detail ?? "It could not be made.");
  save(await answer.blob(), `marks-${swingId.slice(0, 8)}.${ending}`);
}

/** Hand something to the browser as a file. */
function save(what: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(what);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
