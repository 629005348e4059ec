import { RotateCcw, Send, Square, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { base64 } from "../voice/base64";
import { openMicrophone } from "../voice/microphone";
import { VoiceRecorder } from "../voice/voiceRecorder";
import { minutes } from "../walk/words";

const LONGEST_MS = 120_000;
const MOST_BYTES = 1_700_000; // a browser without a codec fills that in some 17 s
const BEAT_MS = 100;
const TYPES = { webm: "audio/webm", mp4: "audio/mp4", wav: "audio/wav" };

/** Speaks a question: it records at once, is heard again, and goes when it is right. */
export function Speak({ done }: { done: (voice: string | null) => void }) {
  const [round, setRound] = useState(0);
  const [ms, setMs] = useState(0);
  const [level, setLevel] = useState(0);
  const [trouble, setTrouble] = useState("");
  const [said, setSaid] = useState<{ url: string; bytes: Uint8Array } | null>(null);
  const stop = useRef<() => void>(() => undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each round opens the microphone anew
  useEffect(() => {
    let left = false;
    let close: () => void = () => undefined;
    setSaid(null);
    setMs(0);
    void record().catch((error: Error) => setTrouble(error.message));
    async function record() {
      const microphone = await openMicrophone(null);
      close = microphone.close;
      const recorder = left ? null : await VoiceRecorder.open(microphone);
      if (left || !recorder) return microphone.close();
      const parts: Uint8Array[] = [];
      let size = 0;
      const take = () => {
        const part = recorder.take();
        parts.push(part);
        size += part.length;
      };
      const end = async () => {
        window.clearInterval(beat);
        stop.current = close = () => undefined;
        await recorder.stop();
        microphone.close();
        take();
        const bytes = joined(parts, size);
        if (!left)
          setSaid({
            bytes,
            url: URL.createObjectURL(new Blob([bytes], { type: TYPES[recorder.container] })),
          });
      };
      const beat = window.setInterval(() => {
        take();
        setMs(recorder.clock.now());
        setLevel(recorder.level);
        if (recorder.clock.now() >= LONGEST_MS || size >= MOST_BYTES || recorder.failed) void end();
      }, BEAT_MS);
      microphone.lost(() => void end());
      stop.current = () => void end();
      close = () => {
        window.clearInterval(beat);
        microphone.close();
      };
      recorder.go();
    }
    return () => {
      left = true;
      close();
    };
  }, [round]);
  useEffect(() => () => void (said && URL.revokeObjectURL(said.url)), [said]);
  if (trouble)
    return (
      <div role="alert" className="plate border-l-4 border-l-brass p-3 text-sm">
        {trouble}
        <button type="button" className="btn btn-sm ml-3" onClick={() => done(null)}>
          Write it
        </button>
      </div>
    );
  return (
    <section aria-label="Spoken question" className="plate p-3">
      {said ? (
        <>
          {/* biome-ignore lint/a11y/useMediaCaption: one's own voice, just spoken */}
          <audio controls src={said.url} className="h-10 w-full" aria-label="What you said" />
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="btn btn-primary" onClick={() => done(base64(said.bytes))}>
              <Send size={16} aria-hidden /> Send it
            </button>
            <button type="button" className="btn" onClick={() => setRound(round + 1)}>
              <RotateCcw size={16} aria-hidden /> Say it again
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => done(null)}>
              <X size={16} aria-hidden /> Leave it
            </button>
          </div>
        </>
      ) : (
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="btn btn-primary"
            onClick={() => stop.current()}
            disabled={ms === 0}
          >
            <Square size={16} aria-hidden /> Done
          </button>
          <span className="num" role="timer" aria-label="Spoken so far">
            {minutes(ms)} / {minutes(LONGEST_MS)}
          </span>
          <span className="h-3 flex-1 border border-base-content/40" aria-hidden>
            <span className="block h-full bg-brass" style={{ width: `${Math.min(100, 300 * level)}%` }} />
          </span>
        </div>
      )}
    </section>
  );
}

function joined(parts: Uint8Array[], size: number): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
