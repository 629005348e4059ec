import { describe, expect, it } from "vitest";
import { tryWords } from "./tryWords";

const ANSWER = {
  answer: "inside" as const,
  why: "" as const,
  reason: "",
  holds: "At the top the trail hip is inside the outer edge of its foot.",
  unit: "m" as const,
  beyond: 0.101,
  give_or_take: 0.074,
  clip_id: null,
  frame: 0,
  drawn: null,
  said: "" as const,
};

describe("what is said of a filmed drill", () => {
  it("names the student's own side, and how far inside", () => {
    expect(tryWords(ANSWER, "face_on", "cm", "left")).toEqual([
      "Inside",
      "At the top the left hip is inside the outer edge of its foot. By about 10 cm, give or take 7 cm.",
    ]);
  });
  it("says outside without a sign", () => {
    const [verdict, words] = tryWords(
      { ...ANSWER, answer: "outside", beyond: -0.127, give_or_take: 0.0408 },
      "face_on",
      "in",
      "right",
    );
    expect(verdict).toBe("Not yet");
    expect(words).toBe("Past the limit by about 5.0 in, give or take 1.6 in.");
  });
  it("never says inside of what it cannot tell, and says what to change", () => {
    expect(tryWords({ ...ANSWER, answer: "unsure" }, "face_on", "cm", "right")[0]).toBe("Cannot be told");
    const blind = { ...ANSWER, answer: "not_read" as const, beyond: null, give_or_take: null };
    expect(tryWords({ ...blind, why: "other_view" }, "down_the_line", "cm", "right")[1]).toContain(
      "Film this drill along the line",
    );
    expect(tryWords({ ...blind, why: "cut_off" }, "face_on", "cm", "right")[1]).toContain("both feet");
  });
});
