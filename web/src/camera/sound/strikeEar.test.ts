import { expect, test } from "vitest";
import { ContextClock } from "./contextClock";
import { StrikeEar } from "./strikeEar";

const RATE = 48_000;
const BLOCK = 1920;

/** A room: noise, a hum and somebody's voice; and sharp knocks at given seconds, dying away within 10 ms. */
function room(seconds: number, knocks: number[], loudness = 0.5): Float32Array {
  let seed = 7;
  const noise = () => {
    seed = (seed * 16807) % 2147483647;
    return seed / 2147483647 - 0.5;
  };
  return Float32Array.from({ length: seconds * RATE }, (_, i) => {
    const t = i / RATE;
    let x = 0.01 * noise() + 0.1 * Math.sin(2 * Math.PI * 90 * t) + 0.08 * Math.sin(2 * Math.PI * 260 * t);
    for (const knock of knocks)
      if (t >= knock && t < knock + 0.06) x += loudness * noise() * Math.exp(-(t - knock) / 0.01);
    return x;
  });
}

function heardIn(samples: Float32Array): number[] {
  const ear = new StrikeEar(RATE);
  const found: number[] = [];
  for (let from = 0; from < samples.length; from += BLOCK) {
    const block = samples.subarray(from, from + BLOCK);
    for (const ago of ear.hear(block)) found.push((from + block.length) / RATE - ago);
  }
  return found;
}

test("strikes are heard where they sound, to within their window", () => {
  const found = heardIn(room(8, [2.3456, 5.0009]));
  expect(found).toHaveLength(2);
  expect(Math.abs((found[0] ?? 0) - 2.3456)).toBeLessThan(0.003);
  expect(Math.abs((found[1] ?? 0) - 5.0009)).toBeLessThan(0.003);
});

test("an echo is no second strike, and the next ball is one", () => {
  expect(heardIn(room(8, [3, 3.12, 3.25, 6]))).toHaveLength(2);
});

test("hum, voices and noise are no strikes, and no knock in a silent room that can hardly be heard", () => {
  expect(heardIn(room(6, []))).toEqual([]);
  const faint = room(6, [3], 0.5).map((x, i) => (i / RATE > 2.99 && i / RATE < 3.1 ? x * 0.004 : 0));
  expect(heardIn(faint)).toEqual([]);
});

test("a context's clock is put on the page's by its promptest blocks, and follows a drift", () => {
  const clock = new ContextClock();
  let at = 0;
  for (let i = 1; i <= 25 * 600; i += 1) {
    const end = i * 0.04;
    const truly = 5000 + end * 1000 * 1.0001; // 0.1 ms a second
    at = clock.ended(end, truly + ((i * 7) % 13)) - truly;
  }
  expect(Math.abs(at)).toBeLessThan(1.5);
});
