import { CHECKPOINTS } from "../../words";
import type { Judgement } from "./verdict";

export interface Plate {
  fault: string;
  x: number;
  y: number;
}

export interface ChainLayout {
  plates: Plate[];
  width: number;
  height: number;
  columns: { moment: string; x: number }[];
}

export const PLATE = { width: 132, height: 40, beside: 26, below: 8, top: 4 };

/** Plates by the moment at which each fault happens, those of one moment below each other. */
export function layOut({ findings }: Pick<Judgement, "findings">): ChainLayout {
  const active = findings.filter((each) => each.active);
  const moments = CHECKPOINTS.map(([moment]) => moment).filter((moment) =>
    active.some((each) => each.moment === moment),
  );
  const plates: Plate[] = [];
  for (const [column, moment] of moments.entries()) {
    const here = active.filter((each) => each.moment === moment);
    for (const [row, { fault }] of here.entries())
      plates.push({
        fault,
        x: column * (PLATE.width + PLATE.beside),
        y: PLATE.top + row * (PLATE.height + PLATE.below),
      });
  }
  return {
    plates,
    width: Math.max(0, moments.length * (PLATE.width + PLATE.beside) - PLATE.beside),
    height: Math.max(0, ...plates.map(({ y }) => y + PLATE.height + PLATE.top)),
    columns: moments.map((moment, column) => ({ moment, x: column * (PLATE.width + PLATE.beside) })),
  };
}

/** A cord from one plate to another: sideways from column to column, around the side within one. */
export function cord(from: Plate, to: Plate): string {
  const start = { x: from.x + PLATE.width, y: from.y + PLATE.height / 2 };
  if (to.x === from.x) {
    const end = { x: to.x + PLATE.width, y: to.y + PLATE.height / 2 };
    const out = PLATE.beside * 0.7;
    return `M${start.x} ${start.y}C${start.x + out} ${start.y} ${end.x + out} ${end.y} ${end.x} ${end.y}`;
  }
  const end = { x: to.x, y: to.y + PLATE.height / 2 };
  const bend = Math.max(14, (end.x - start.x) / 2);
  return `M${start.x} ${start.y}C${start.x + bend} ${start.y} ${end.x - bend} ${end.y} ${end.x} ${end.y}`;
}

export interface MissPlate {
  words: string;
  from: string[]; // the faults that send the ball so
  x: number;
  y: number;
}

/** The usual miss at the chain's end, and which faults of the chain bring it; null where nobody said one. */
export function missPlate(
  judgement: Pick<Judgement, "findings" | "misses">,
  laid: ChainLayout,
): MissPlate | null {
  const { misses } = judgement;
  if (!misses.length) return null;
  const placed = new Set(laid.plates.map(({ fault }) => fault));
  const from = judgement.findings.filter(
    ({ fault, ball }) => placed.has(fault) && ball.some((miss) => misses.includes(miss)),
  );
  return {
    words: misses.map((miss) => miss.replace("_", "-")).join(", "),
    from: from.map(({ fault }) => fault),
    x: laid.width + PLATE.beside,
    y: PLATE.top,
  };
}
