import { describe, expect, it } from "vitest";
import { agreement, otherOptions } from "./twoModels";
import type { Finding, Judgement } from "./verdict";

const judgement = (...findings: [string, Finding["verdict"]][]) =>
  ({
    findings: findings.map(([fault, verdict]) => ({ fault, name: fault, verdict })),
  }) as unknown as Judgement;

describe("one swing by two models", () => {
  it("counts only what either finds, and says how they differ", () => {
    const one = judgement(["sways", "shown"], ["steep", "likely"], ["wide", "not_shown"], ["late", "open"]);
    const other = judgement(["sways", "likely"], ["wide", "not_shown"], ["late", "shown"]);
    expect(agreement(one, other)).toEqual({
      same: 1,
      all: 3,
      differing: [
        { fault: "steep", name: "steep", one: "fault", other: "not asked" },
        { fault: "late", name: "late", one: "open", other: "fault" },
      ],
    });
  });

  it("names the disputes on which they take sides", () => {
    const dispute = {
      id: "heel",
      name: "The heel",
      question: "Down?",
      options: [
        { id: "down", name: "Down" },
        { id: "free", name: "Free" },
      ],
    };
    const models = [
      { id: "a", chosen: { heel: "down" } },
      { id: "b", chosen: { heel: "free" } },
    ];
    const book = { disputes: [dispute], models } as never;
    expect(otherOptions(book, "a", "b")).toEqual([
      { dispute: "The heel", question: "Down?", one: "Down", other: "Free" },
    ]);
    expect(otherOptions(book, "a", "a")).toEqual([]);
  });
});
