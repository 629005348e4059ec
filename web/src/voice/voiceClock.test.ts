import { describe, expect, it } from "vitest";
import { VoiceClock } from "./voiceClock";

/** A microphone that hands over 40 ms at a time, each block some ms late. */
function heard(late: number[]) {
  let context = 0;
  const clock = new VoiceClock(48_000, () => context);
  let end = 0;
  const told: { true: number; said: number }[] = [];
  for (const ms of late) {
    end += 0.04;
    for (let at = end - 0.04; at < end + ms / 1000; at += 0.005) {
      context = Math.max(context, at);
      told.push({ true: context * 1000, said: clock.now() });
    }
    context = end + ms / 1000;
    clock.took(1920, end);
  }
  return { clock, told, to: (at: number) => (context = at) };
}

describe("a voice's clock", () => {
  it("says when something happens in the voice, however late its blocks come", () => {
    const { told } = heard(Array.from({ length: 200 }, (_, i) => [2, 9, 30, 4][i % 4] ?? 0));
    for (const each of told.slice(20)) expect(Math.abs(each.said - each.true)).toBeLessThan(12);
  });

  it("stands in a pause, never goes back, and goes on from there", () => {
    const { clock, to } = heard([5, 5, 5]);
    const before = clock.now();
    clock.stand();
    to(9);
    expect(clock.now()).toBe(before);
    clock.took(1920, 9.04);
    to(9.05);
    expect(clock.now()).toBeGreaterThanOrEqual(before);
    expect(clock.now()).toBeLessThan(before + 60);
    to(60); // the microphone is gone: no time passes that nobody heard
    expect(clock.now()).toBeLessThan(before + 400);
  });
});
