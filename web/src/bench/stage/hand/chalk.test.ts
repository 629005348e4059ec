import { describe, expect, it } from "vitest";
import type { Stroke } from "../../../drawn/chalk";
import { chalkedOn } from "./chalk";

const drawn = (id: string, tool: Stroke["tool"], points: number[][], frame = 4) => ({
  id,
  clip: "c",
  frame,
  tool,
  points: points.map(([x = 0, y = 0]) => ({ x, y })),
});

describe("chalk in hand", () => {
  it("grows a stroke while the hand is down, and forgets a slip", () => {
    const begun = chalkedOn([], drawn("a", "line", [[0, 0]]), false);
    const on = chalkedOn(
      begun,
      drawn("a", "line", [
        [0, 0],
        [40, 0],
      ]),
      false,
    ); // prettier-ignore
    expect(on).toHaveLength(1);
    expect(
      chalkedOn(
        on,
        drawn("a", "line", [
          [0, 0],
          [40, 0],
        ]),
        true,
      ),
    ).toHaveLength(1); // prettier-ignore
    expect(
      chalkedOn(
        on,
        drawn("a", "line", [
          [0, 0],
          [1, 1],
        ]),
        true,
      ),
    ).toHaveLength(0); // prettier-ignore
  });

  it("draws an angle in two goes, its corner where the first one ended", () => {
    const first = chalkedOn(
      [],
      drawn("a", "angle", [
        [0, 0],
        [50, 0],
      ]),
      true,
    ); // prettier-ignore
    const second = chalkedOn(
      first,
      drawn("b", "angle", [
        [52, 3],
        [50, 60],
      ]),
      true,
    ); // prettier-ignore
    expect(second).toEqual([
      drawn("a", "angle", [
        [0, 0],
        [50, 0],
        [50, 60],
      ]),
    ]); // prettier-ignore
    const third = chalkedOn(
      second,
      drawn("c", "angle", [
        [9, 9],
        [90, 9],
      ]),
      true,
    ); // prettier-ignore
    expect(third).toHaveLength(2);
  });

  it("begins a new angle on another frame", () => {
    const first = chalkedOn(
      [],
      drawn("a", "angle", [
        [0, 0],
        [50, 0],
      ]),
      true,
    ); // prettier-ignore
    expect(
      chalkedOn(
        first,
        drawn(
          "b",
          "angle",
          [
            [0, 0],
            [9, 40],
          ],
          7,
        ),
        true,
      ),
    ).toHaveLength(2); // prettier-ignore
  });
});
