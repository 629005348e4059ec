import { describe, expect, it } from "vitest";
import { achesInWords, partWords } from "./bodyWords";

describe("a body in words", () => {
  it("says left and right by the player's own hand", () => {
    expect(partWords("lead_hip", "right")).toBe("left hip");
    expect(partWords("lead_hip", "left")).toBe("right hip");
    expect(partWords("trail_knee", "left")).toBe("left knee");
    expect(partWords("low_back", "left")).toBe("low back");
  });

  it("tells what is the matter and who agreed", () => {
    const replaced = { part: "lead_hip", trouble: "replaced", agreed_by: "Dr Holm" } as const;
    const dizzy = { part: "", trouble: "dizziness", agreed_by: "" } as const;
    expect(achesInWords([replaced, dizzy], "right")).toBe(
      "left hip (replaced joint), Dr Holm agreed, dizziness",
    );
  });
});
