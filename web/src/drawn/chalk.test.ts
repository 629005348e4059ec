import { describe, expect, it } from "vitest";
import { angleAt, barbs, thinned } from "./chalk";

describe("chalk", () => {
  it("measures the angle of the picture either way round", () => {
    const corner = { x: 10, y: 10 };
    expect(angleAt(corner, { x: 20, y: 10 }, { x: 10, y: 0 })).toBeCloseTo(90);
    expect(angleAt(corner, { x: 10, y: 0 }, { x: 20, y: 10 })).toBeCloseTo(90);
    expect(angleAt(corner, { x: 0, y: 10 }, { x: 20, y: 10.001 })).toBeCloseTo(180, 1);
    expect(angleAt(corner, { x: 0, y: 9 }, { x: 0, y: 11 })).toBeCloseTo(11.42, 2);
  });

  it("puts an arrow's barbs behind its tip, one to each side", () => {
    const [a, b] = barbs({ x: 0, y: 0 }, { x: 100, y: 0 }, 10);
    expect(a.x).toBeCloseTo(b.x);
    expect(a.x).toBeLessThan(100);
    expect(a.y).toBeCloseTo(-b.y);
  });

  it("thins a way, and stays on it", () => {
    const wave = Array.from({ length: 400 }, (_, i) => ({ x: i, y: 40 * Math.sin(i / 60) }));
    const thin = thinned(wave);
    expect(thin.length).toBeLessThan(40);
    for (const { x, y } of wave) {
      const after = thin.findIndex((point) => point.x >= x);
      const [p, q] = [thin[Math.max(after - 1, 0)], thin[after]];
      if (!p || !q) throw new Error();
      const share = q.x === p.x ? 0 : (x - p.x) / (q.x - p.x);
      expect(Math.abs(p.y + share * (q.y - p.y) - y)).toBeLessThan(1);
    }
    expect(thinned([{ x: 1, y: 1 }])).toHaveLength(1);
  });
});
