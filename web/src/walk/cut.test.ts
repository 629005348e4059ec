import { describe, expect, it } from "vitest";
import { chaptersOf } from "./chapters";
import { type Cut, cutLength, moved, part, placeAt, saidAnew, trimmed, wholeScore, without } from "./cut";
import { type Score, ScoreReader } from "./score";

const showing = { cx: 360, cy: 640, high: 1280, wide: 720, mirrored: false };
/** A take whose frame says how many tenths of a second it has lasted. */
const counted = (first: number, length: number): Score => [
  { at: 0, kind: "stage", side: "student", shown: { clip: "c", frame: first, showing } },
  ...Array.from({ length: length / 100 - 1 }, (_, i) => ({
    at: (i + 1) * 100,
    kind: "frame" as const,
    side: "student" as const,
    frame: first + i + 1,
  })),
];
const takes = [
  { id: "a", length_ms: 10_000, score: counted(0, 10_000) },
  { id: "b", length_ms: 3_000, score: counted(500, 3_000) },
];
const lengths = (id: string) => takes.find((take) => take.id === id)?.length_ms ?? 0;
const whole: Cut = [{ take: "a", from: 0, to: null }];
const frameAt = (cut: Cut, ms: number) =>
  new ScoreReader(wholeScore(cut, takes)).at(ms).stages.student?.frame;

describe("mending a walk", () => {
  it("cuts a stretch out: voice and picture go on together after the seam", () => {
    const cut = without(whole, 2_000, 5_000, lengths);
    expect(cutLength(cut, lengths)).toBe(7_000);
    expect(placeAt(cut, 2_500, lengths)).toMatchObject({ take: "a", at: 5_500 });
    expect([1_950, 2_000, 2_500].map((ms) => frameAt(cut, ms))).toEqual([19, 50, 55]);
  });

  it("cuts on whole ms, wherever a voice was stopped", () => {
    const cut = without(whole, 1_234.567, 4_321.0987, lengths);
    expect(cut).toEqual([
      { take: "a", from: 0, to: 1_235 },
      { take: "a", from: 4_321, to: null },
    ]);
  });

  it("says a stretch anew", () => {
    const cut = saidAnew(whole, 4_000, 6_000, "b", lengths);
    expect(cutLength(cut, lengths)).toBe(11_000);
    expect([3_999, 4_000, 6_950, 7_000].map((ms) => frameAt(cut, ms))).toEqual([39, 500, 529, 60]);
  });

  it("moves a chapter either way, and nowhere into itself", () => {
    const later = moved(whole, 1_000, 3_000, 6_000, lengths);
    const earlier = moved(whole, 6_000, 8_000, 1_000, lengths);
    expect([500, 1_000, 4_000, 6_000].map((ms) => frameAt(later, ms))).toEqual([5, 30, 10, 60]);
    expect([500, 1_000, 3_000, 8_000].map((ms) => frameAt(earlier, ms))).toEqual([5, 60, 10, 80]);
    expect(moved(whole, 1_000, 3_000, 2_000, lengths)).toEqual(whole);
    for (const cut of [later, earlier]) expect(cutLength(cut, lengths)).toBe(10_000);
  });

  it("shortens silences to what was asked for, at the ends too", () => {
    const silent = () =>
      [
        [0, 1_000],
        [4_000, 6_000],
        [9_500, 10_000],
      ] as [number, number][]; // prettier-ignore
    const cut = trimmed(whole, silent, 400, lengths);
    expect(cutLength(cut, lengths)).toBe(10_000 - 800 - 1_600 - 300);
    expect(cutLength(trimmed(without(whole, 4_500, 5_500, lengths), silent, 400, lengths), lengths)).toBe(
      9_000 - 800 - 600 - 300,
    );
  });

  it("never mentions what was cut away", () => {
    const [a] = takes;
    if (!a) throw new Error();
    const secret = { id: "x", clip: "c", frame: 30, tool: "text" as const, points: [], text: "not for him" };
    const score: Score = [
      ...a.score.filter(({ at }) => at <= 3_000),
      { at: 3_050, kind: "chalk", stroke: secret },
      { at: 3_060, kind: "again" },
      { at: 4_000, kind: "wipe", id: null },
    ];
    const cut = without(whole, 3_020, 4_500, lengths);
    expect(JSON.stringify(wholeScore(cut, [{ ...a, score }]))).not.toContain("not for him");
    expect(JSON.stringify(wholeScore(whole, [{ ...a, score }]))).toContain("not for him");
  });

  it("takes any part of a cut as its own length", () => {
    const cut = saidAnew(without(whole, 2_000, 5_000, lengths), 1_000, 1_500, "b", lengths);
    for (const [from, to] of [
      [0, 900],
      [800, 4_100],
      [3_900, 99_999],
    ] as const) // prettier-ignore
      expect(cutLength(part(cut, from, to, lengths), lengths)).toBe(
        Math.min(to, cutLength(cut, lengths)) - from,
      );
  });
});

describe("chapters", () => {
  it("begin where a stage comes to stand on a checkpoint, not where it runs through one", () => {
    const score: Score = [
      { at: 0, kind: "stage", side: "student", shown: { clip: "c", frame: 10, showing } },
      { at: 3_000, kind: "frame", side: "student", frame: 40 },
      { at: 3_200, kind: "frame", side: "student", frame: 60 },
      { at: 9_000, kind: "frame", side: "student", frame: 61 },
      { at: 12_000, kind: "frame", side: "student", frame: 60 },
    ];
    const pegs = { c: { address: 10, arm_back: 40, top: 60 } };
    expect(chaptersOf(score, 15_000, pegs)).toEqual([
      { at: 0, name: "address" },
      { at: 3_200, name: "top" },
    ]);
  });
});
