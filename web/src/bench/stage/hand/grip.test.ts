import { describe, expect, it } from "vitest";
import { KNOWN_LENGTH, MAT, PLAYER } from "../../benchState";
import { grip } from "./grip";
import { aside } from "./hit";
import type { Scene, Spot } from "./scene";

/** A stage that shows the picture twice as large, moved by ten pixels. */
const toPicture = ({ x, y }: { x: number; y: number }) => ({ x: (x - 10) / 2, y: (y - 10) / 2 });
const spot = (name: string, x: number, y: number, grouped = false): Spot => ({
  name,
  at: { x, y },
  place: toPicture({ x, y }),
  grouped,
});
const scene = (about: Partial<Scene>): Scene => ({
  tool: null,
  selected: null,
  spots: [],
  corners: [],
  toPicture,
  toRange: toPicture,
  ...about,
});

describe("a press on a stage", () => {
  it("takes the nearest mark, whatever was drawn last", () => {
    const spots = [spot("lead_heel", 100, 100), spot("lead_toe", 112, 100)];
    for (const order of [spots, [...spots].reverse()]) {
      const { deeds } = grip(scene({ spots: order }), { x: 101, y: 100 });
      expect(deeds).toEqual([{ do: "choose", name: "lead_heel" }]);
    }
  });

  it("prefers the chosen mark, and then those of the group that lies ready", () => {
    const spots = [spot("lead_heel", 100, 100), spot("lead_ankle", 108, 100, true)];
    const chosen = grip(scene({ spots, selected: "lead_heel" }), { x: 106, y: 100 });
    expect(chosen.deeds).toEqual([{ do: "choose", name: "lead_heel" }]);
    expect(grip(scene({ spots }), { x: 104.5, y: 100 }).deeds[0]).toMatchObject({ name: "lead_ankle" });
  });

  it("asks which is meant where two lie on each other", () => {
    const spots = [spot("lead_heel", 100, 100), spot("lead_ankle", 102, 100)];
    const { deeds, hand } = grip(scene({ spots }), { x: 101, y: 101 });
    expect(deeds).toEqual([{ do: "fan", at: { x: 101, y: 101 }, names: ["lead_heel", "lead_ankle"] }]);
    expect(hand).toBeNull();
  });

  it("moves a mark by as much as the hand moves, from the first pixel", () => {
    const held = grip(scene({ spots: [spot("seat", 100, 100)] }), { x: 106, y: 103 });
    expect(held.hand?.move({ x: 106, y: 103 })).toEqual([]);
    expect(held.hand?.move({ x: 107, y: 103 })).toEqual([
      { do: "put", name: "seat", place: { x: 45.5, y: 45 } },
    ]);
  });

  it("puts the mark in hand where it is clicked, near its old place too, and asks for the next", () => {
    const put = grip(scene({ tool: "seat", spots: [spot("seat", 100, 100)] }), { x: 104, y: 100 });
    expect(put.deeds[0]).toEqual({ do: "put", name: "seat", place: { x: 47, y: 45 } });
    expect(put.hand?.up({ x: 104, y: 100 })).toEqual([{ do: "next" }]);
  });

  it("shows who plays where it is clicked", () => {
    const shown = grip(scene({ tool: PLAYER, spots: [spot("seat", 100, 100)] }), { x: 100, y: 100 });
    expect(shown).toEqual({ deeds: [{ do: "show player", place: { x: 45, y: 45 } }], hand: null });
  });

  it("draws a line, and says so where it was only a click", () => {
    const line = grip(scene({ tool: KNOWN_LENGTH }), { x: 10, y: 10 });
    expect(line.hand?.up({ x: 110, y: 10 })).toEqual([{ do: "line", a: { x: 0, y: 0 }, b: { x: 50, y: 0 } }]);
    expect(line.hand?.up({ x: 12, y: 10 })).toMatchObject([{ do: "say" }]);
  });

  it("clicks the mat's corners, turns one that is there, and else takes hold of the picture", () => {
    expect(grip(scene({ tool: MAT }), { x: 10, y: 10 }).deeds).toMatchObject([{ do: "add corner" }]);
    const corner = grip(scene({ corners: [{ x: 50, y: 50 }] }), { x: 52, y: 50 });
    expect(corner.hand?.move({ x: 60, y: 50 })).toMatchObject([{ do: "corner", index: 0 }]);
    const pan = grip(scene({ selected: "seat" }), { x: 300, y: 300 });
    expect(pan.deeds).toEqual([{ do: "choose", name: null }]);
    expect(pan.hand?.move({ x: 310, y: 300 })).toEqual([{ do: "shift", by: { x: 10, y: 0 } }]);
  });
});

describe("what lies about the place that is aimed at", () => {
  it("moves aside along its own way, and leaves the place clear", () => {
    expect(aside({ x: 110, y: 100 }, { x: 100, y: 100 }, 0)).toEqual({ x: 134, y: 100 });
    expect(aside({ x: 200, y: 100 }, { x: 100, y: 100 }, 0)).toEqual({ x: 200, y: 100 });
    const under = [0, 1, 2].map((i) => aside({ x: 100, y: 100 }, { x: 100, y: 100 }, i));
    for (const each of under) expect(Math.hypot(each.x - 100, each.y - 100)).toBeCloseTo(34);
    expect(new Set(under.map(({ x }) => x.toFixed(1))).size).toBe(3);
  });
});
