import { describe, expect, it } from "vitest";
import type { Stroke } from "../drawn/chalk";
import { leadingTo, NOTHING, type Scene, type Score, ScoreReader, sceneAfter } from "./score";

const showing = { cx: 360, cy: 640, high: 1280, wide: 720, mirrored: false };
const stroke = (points: number[][]): Stroke => ({
  id: "s",
  clip: "c",
  frame: 4,
  tool: "free",
  points: points.map(([x = 0, y = 0]) => ({ x, y })),
});
const opened: Score = [
  { at: 0, kind: "stage", side: "student", shown: { clip: "c", frame: 4, showing } },
  { at: 0, kind: "gauges", ids: ["hip"] },
];
const long: Score = [
  ...opened,
  ...Array.from({ length: 3000 }, (_, i) => ({
    at: 10 * (i + 1),
    kind: "frame" as const,
    side: "student" as const,
    frame: (i * 7) % 120,
  })),
];

describe("a walk's score", () => {
  it("says what is seen at any moment, however one came there", () => {
    const slow = (ms: number) => long.filter(({ at }) => at <= ms).reduce(sceneAfter, NOTHING);
    const reader = new ScoreReader(long);
    for (const ms of [0, 5, 10, 29_999, 30_000, 12_345, 4_000, 4_010, 3_999, 99_999, 15_000])
      expect(reader.at(ms)).toEqual(slow(ms));
  });

  it("tells what is looked into and what lies open by what has changed", () => {
    const tape = { reading: "pelvis_sway", at: "top" };
    const drawer = { part: "curves" as const, reading: "pelvis_sway" };
    const read: Scene = { ...NOTHING, tape, drawer };
    expect(leadingTo(NOTHING, read, 7)).toEqual([
      { at: 7, kind: "drawer", drawer },
      { at: 7, kind: "tape", tape },
    ]);
    expect(leadingTo(read, { ...read, tape: { ...tape } }, 8)).toEqual([]);
    expect(leadingTo(read, NOTHING, 9).reduce(sceneAfter, read)).toEqual(NOTHING);
  });

  it("lets a free line grow, and changes nothing for what is not there", () => {
    const drawn = sceneAfter(NOTHING, { at: 0, kind: "chalk", stroke: stroke([[1, 1]]) });
    const on = sceneAfter(drawn, { at: 9, kind: "chalk_on", id: "s", points: [{ x: 2, y: 2 }] });
    expect(on.chalk[0]?.points).toHaveLength(2);
    expect(sceneAfter(on, { at: 9, kind: "chalk_on", id: "other", points: [{ x: 2, y: 2 }] })).toEqual(on);
    expect(sceneAfter(NOTHING, { at: 0, kind: "frame", side: "reference", frame: 3 })).toEqual(NOTHING);
  });

  it("leads from any scene to any other, and a line that went on costs its new points only", () => {
    const scenes: Scene[] = [
      NOTHING,
      new ScoreReader(long).at(200),
      { ...new ScoreReader(long).at(800), chalk: [stroke([[1, 1]])], solo: "student", rate: 0.25 },
      {
        ...NOTHING,
        chalk: [
          stroke([
            [1, 1],
            [2, 3],
          ]),
        ], // prettier-ignore
        stages: { reference: { clip: "d", frame: 1, showing } },
        pointer: { side: "reference", x: 3, y: 4 },
        drawer: { part: "curves", reading: "pelvis_turn" },
      },
    ];
    for (const from of scenes)
      for (const to of scenes) expect(leadingTo(from, to, 7).reduce(sceneAfter, from)).toEqual(to);
    const [a, b] = [scenes[2], scenes[3]];
    if (!a || !b) throw new Error();
    expect(leadingTo(a, b, 7)).toContainEqual({ at: 7, kind: "chalk_on", id: "s", points: [{ x: 2, y: 3 }] });
  });
});
