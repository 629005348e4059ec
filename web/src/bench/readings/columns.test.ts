import { expect, test } from "vitest";
import { gaugesOf, readingsOf, replaced } from "./columns";
import type { Kinds } from "./reading";

const KINDS: Kinds = {
  sway: { reading: "sway", unit: "m", group: "pelvis", method: "how far", sign: "toward the target" },
};
const COLUMN = {
  reading: "sway",
  at: ["top", "impact"],
  value: [0.03, null],
  u95: [0.01, null],
  clips: [[1], []],
  frames: [[60, 9], []],
  said: [],
  reason: ["", "Set the impact peg."],
  needs: [],
  provisional: [true, false],
  band: [],
  standing: [],
};

test("columns: a row is given where it has a value, and a column that says nothing is empty", () => {
  const [top, impact] = readingsOf([COLUMN], ["face", "line"], KINDS);
  expect(top).toMatchObject({ at: "top", status: "ok", value: 0.03, clips: ["line"], unit: "m" });
  expect(top).toMatchObject({ provisional: true, said: "", needs: [], band: null });
  expect(impact).toMatchObject({ at: "impact", status: "refused", reason: "Set the impact peg." });
  // Beyond a column's end its last entry holds.
  const alike = { ...COLUMN, clips: [[0, 1]], standing: ["inside" as const] };
  const rows = readingsOf([alike], ["face", "line"], KINDS);
  expect(rows.map(({ clips, standing }) => [clips, standing])).toEqual(
    Array(2).fill([["face", "line"], "inside"]),
  );
});

test("columns: a reading of which the catalogue does not know is left out", () => {
  expect(readingsOf([{ ...COLUMN, reading: "new" }], [], KINDS)).toEqual([]);
});

test("columns: a gauge's points come in pairs", () => {
  const [gauge] = gaugesOf([
    {
      id: "plumb",
      label: "Plumb",
      lines: [],
      style: "span",
      reading: "sway",
      unit: "m",
      frame: [9],
      points: [[1, 2, 3, 4]],
      target: [],
      value: [0.1],
      u95: [null],
    },
  ]);
  expect(gauge?.shapes[0]).toMatchObject({ frame: 9, value: 0.1, u95: null });
  expect(gauge?.shapes[0]?.target).toEqual([]);
  expect(gauge?.shapes[0]?.points).toEqual([
    { x: 1, y: 2 },
    { x: 3, y: 4 },
  ]);
});

test("columns: what differs takes its place, what does not stays the very same", () => {
  const [a, b, c] = [{ id: "a" }, { id: "b" }, { id: "c" }];
  const next = { id: "b", new: true };
  const found = replaced([a, b, b, c], [next], ({ id }) => id);
  expect(found).toEqual([a, next, c]);
  expect(found[0]).toBe(a);
});
