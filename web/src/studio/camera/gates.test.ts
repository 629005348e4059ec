import { expect, test } from "vitest";
import type { Try } from "../ladderWords";
import { gatesOf } from "./gates";

const tried = (name: string, gates: number[], view = "face_on") =>
  ({ films: [{ name: `${name}.webm`, view, gates }] }) as Try;

test("a try's own gates stand, and until they are known those of the try before", () => {
  const before = [tried("try-1", [0.4, 0.6]), tried("try-2", [0.41, 0.61])];
  expect(gatesOf(before, "face_on", "try-3")).toEqual({ at: [0.41, 0.61], own: false });
  const unread = [...before, tried("try-3", [])];
  expect(gatesOf(unread, "face_on", "try-3")).toEqual({ at: [0.41, 0.61], own: false });
  const read = [...before, tried("try-3", [0.42, 0.62])];
  expect(gatesOf(read, "face_on", "try-3")).toEqual({ at: [0.42, 0.62], own: true });
});

test("another camera's gates, and those of a try whose name begins alike, are not this one's", () => {
  const other = [tried("try-1", [0.3], "down_the_line")];
  expect(gatesOf(other, "face_on", "try-1")).toBeNull();
  expect(gatesOf([tried("try-12", [0.4, 0.6])], "face_on", "try-1")).toEqual({ at: [0.4, 0.6], own: false });
});
