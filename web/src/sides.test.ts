import { describe, expect, it } from "vitest";
import { clipLike, otherSide } from "./sides";
import type { View } from "./words";

const clips = (...views: View[]) => views.map((view) => ({ view }));

describe("sides", () => {
  it("finds a clip from a side, else from the opposite one, else none", () => {
    expect(clipLike(clips("down_the_line", "face_on"), "face_on")?.view).toBe("face_on");
    expect(clipLike(clips("face_on", "down_the_line"), "up_the_line")?.view).toBe("down_the_line");
    expect(clipLike(clips("down_the_line", "from_behind"), "face_on")?.view).toBe("from_behind");
    expect(clipLike(clips("down_the_line"), "face_on")).toBeUndefined();
  });
  it("is filmed square to the line beside along it", () => {
    expect(otherSide("up_the_line")).toBe("face_on");
    expect(otherSide("from_behind")).toBe("down_the_line");
  });
});
