import { describe, expect, it } from "vitest";
import { cord, layOut, missPlate, PLATE } from "./chainLayout";
import type { Finding } from "./verdict";

const finding = (fault: string, moment: string, verdict: Finding["verdict"] = "shown") =>
  ({ fault, moment, verdict, active: verdict !== "open" }) as Finding;

describe("the chain of causes", () => {
  it("lays plates out by the time of the swing, one below the other at one moment", () => {
    const laid = layOut({
      findings: [
        finding("hangs_back", "impact"),
        finding("wide", "address"),
        finding("sways", "top", "likely"),
        finding("short", "top"),
        finding("steep", "arm_down", "open"),
      ],
    });
    const at = Object.fromEntries(laid.plates.map((plate) => [plate.fault, plate]));
    expect(at.steep).toBeUndefined();
    expect(at.wide?.x).toBe(0);
    expect(at.sways?.x).toBe(at.short?.x);
    expect(at.short?.y).toBeGreaterThanOrEqual((at.sways?.y ?? 0) + PLATE.height);
    expect(at.hangs_back?.x).toBeGreaterThan(at.sways?.x ?? 0);
    expect(laid.columns.map(({ moment }) => moment)).toEqual(["address", "top", "impact"]);
  });

  it("ends in the usual miss, from the faults that bring it", () => {
    const found = { ...finding("hangs_back", "impact"), ball: ["thin"] as const };
    const other = { ...finding("steep", "top"), ball: ["slice"] as const };
    const judged = {
      findings: [found, other] as unknown as Finding[],
      misses: ["thin" as const, "two_way" as const],
    };
    const laid = layOut(judged);
    expect(missPlate(judged, laid)).toMatchObject({ words: "thin, two-way", from: ["hangs_back"] });
    expect(missPlate(judged, laid)?.x).toBeGreaterThan(laid.width);
    expect(missPlate({ ...judged, misses: [] }, laid)).toBeNull();
  });

  it("is nothing where nothing is wrong", () => {
    expect(layOut({ findings: [] })).toEqual({ plates: [], width: 0, height: 0, columns: [] });
  });

  it("leads a cord from the edge of one plate to the edge of the next", () => {
    const [a, b] = [
      { fault: "a", x: 0, y: 0 },
      { fault: "b", x: 300, y: 48 },
    ];
    expect(cord(a, b)).toMatch(/^M132 20C.* 300 68$/);
    expect(cord(a, { ...b, x: 0 })).toMatch(/ 132 68$/);
  });
});
