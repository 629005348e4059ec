import { expect, test } from "vitest";
import { type Found, greys, motionBetween, SwingFinder } from "./swingFinder";

const FRAME_MS = 1000 / 30;

/** Seen frame by frame: at rest a phone's noise, and swings struck at given seconds. */
function played(seconds: number, strikes: number[], pause = 0.1): Found[] {
  const finder = new SwingFinder();
  const found: Found[] = [];
  for (let t = 0; t < seconds * 1000; t += FRAME_MS) {
    let motion = 1.8 + 0.4 * Math.sin(t / 37);
    for (const strike of strikes) motion = Math.max(motion, swing(t / 1000 - strike, pause));
    const one = finder.see(t, motion);
    if (one) found.push(one);
  }
  return found;
}

/** Back for 0.8 s, still at the top, down within a quarter of a second, through and slower: as clips of demo golfers show. */
function swing(since: number, pause: number): number {
  if (since > 0) return since > 1.2 ? 0 : 32 * Math.exp(-since / 0.3);
  if (since > -0.25) return 6 + 26 * (1 + since / 0.25);
  if (since > -0.25 - pause) return 4;
  const back = since + 0.25 + pause;
  return back > -0.8 ? 15 * Math.sin((Math.PI * -back) / 0.8) : 0;
}

test("each swing is found once, its fastest moment where it was struck, and soon after it", () => {
  const found = played(14, [3, 7.5, 11]);
  expect(found).toHaveLength(3);
  for (const [i, strike] of [3000, 7500, 11_000].entries()) {
    expect(Math.abs((found[i]?.top ?? 0) - strike)).toBeLessThan(60);
    expect((found[i]?.to ?? 0) - strike).toBeLessThan(750);
    expect(strike - (found[i]?.from ?? 0)).toBeGreaterThan(1500);
  }
});

test("who stops at the top for half a second has not swung yet", () => {
  const found = played(8, [4], 0.5);
  expect(found).toHaveLength(1);
  expect(Math.abs((found[0]?.top ?? 0) - 4000)).toBeLessThan(60);
});

test("somebody who stands still, or waggles a little, is not taken for a swing", () => {
  expect(played(20, [])).toEqual([]);
  const finder = new SwingFinder();
  const waggle = Array.from({ length: 600 }, (_, i) => finder.see(i * FRAME_MS, i % 45 < 8 ? 7 : 1.8));
  expect(waggle.filter(Boolean)).toEqual([]);
});

test("somebody who walks about for long, and then stands, is not taken for a swing", () => {
  const finder = new SwingFinder();
  const walking = Array.from({ length: 500 }, (_, i) =>
    finder.see(i * FRAME_MS, i < 30 || i > 330 ? 1.8 : 22 + 6 * Math.sin(i / 9)),
  );
  expect(walking.filter(Boolean)).toEqual([]);
});

test("a light that is switched on, or a knock, is not taken for a swing", () => {
  const finder = new SwingFinder();
  const knocked = Array.from({ length: 300 }, (_, i) =>
    finder.see(i * FRAME_MS, i === 100 ? 90 : i === 101 ? 40 : 1.8),
  );
  expect(knocked.filter(Boolean)).toEqual([]);
});

test("what moves is measured where it moves most, on greys", () => {
  const dark = greys(new Uint8ClampedArray([0, 0, 0, 255, 255, 255, 255, 255]));
  expect([...dark]).toEqual([0, 255]);
  const still = new Uint8Array(100).fill(90);
  const moved = still.map((grey, i) => (i < 5 ? grey + 20 : grey + 1)); // a player is a small part of a picture
  expect(motionBetween(still, moved)).toBe(20);
});
