const LOW_HZ = 660;
const HIGH_HZ = 990;
const BEEP_S = 0.14;

/** Counts down by sound, a beep a second and a higher one at the end; resolves then, or never once it is stopped. */
export function countDown(
  seconds: number,
  left: (seconds: number) => void,
): { over: Promise<void>; stop: () => void } {
  const context = new AudioContext();
  let timer: number | undefined;
  const beep = (hertz: number) => {
    const tone = new OscillatorNode(context, { frequency: hertz });
    tone.connect(context.destination);
    tone.start();
    tone.stop(context.currentTime + BEEP_S);
  };
  const over = new Promise<void>((resolve) => {
    const count = (now: number) => {
      left(now);
      beep(now === 0 ? HIGH_HZ : LOW_HZ);
      if (now === 0) {
        window.setTimeout(() => void context.close(), 1000);
        resolve();
      } else timer = window.setTimeout(count, 1000, now - 1);
    };
    count(seconds);
  });
  return {
    over,
    stop: () => {
      window.clearTimeout(timer);
      if (context.state !== "closed") void context.close();
    },
  };
}
