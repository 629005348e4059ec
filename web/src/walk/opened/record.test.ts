import { strToU8, zipSync } from "fflate";
import { expect, test } from "vitest";
import { readRecord } from "./record";

const ID = "0b51b3f4-13c4-4a3c-9a53-0d5b7a3f3a10";
const WALK = {
  made: 1,
  length_ms: 1000,
  score: [],
  chapters: [],
  captions: {},
  clips: [{ id: ID, gauges: [] }],
};
const packed = (walk: unknown, files: Record<string, Uint8Array> = {}) =>
  zipSync({ "walk/walk.json": strToU8(typeof walk === "string" ? walk : JSON.stringify(walk)), ...files });
const WHOLE = { "walk/voice.m4a": strToU8("voice"), [`walk/clips/${ID}.mp4`]: strToU8("clip") };

test("walk record: comes out with its voice and clips", () => {
  const { walk, clips } = readRecord(packed(WALK, { ...WHOLE, "lesson.html": strToU8("not looked at") }));
  expect(walk.length_ms).toBe(1000);
  expect([...clips.keys()]).toEqual([ID]);
});

test("walk record: what is missing or wrong is named", () => {
  expect(() => readRecord(strToU8("no zip at all"))).toThrow("no zip");
  expect(() => readRecord(packed(WALK))).toThrow(`walk/clips/${ID}.mp4 is missing`);
  expect(() => readRecord(packed("{", WHOLE))).toThrow("not JSON");
  expect(() => readRecord(packed({ ...WALK, score: 5 }, WHOLE))).toThrow("score is not a list");
  expect(() => readRecord(packed({ ...WALK, clips: [{ id: "../../x", gauges: [] }] }, WHOLE))).toThrow(
    "no id",
  );
  expect(() => readRecord(packed({ ...WALK, length_ms: "long" }, WHOLE))).toThrow("length_ms");
});
