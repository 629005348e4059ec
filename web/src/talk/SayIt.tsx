import { Mic, Send } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { keep } from "../parts/keep";

const Speak = lazy(async () => ({ default: (await import("./Speak")).Speak }));

/** Words for the other side of a thread, kept in this browser until they are said; or a voice instead. */
export function SayIt(props: {
  name: string; // under which words that were begun are kept
  label: string;
  button: string;
  say: (words: string) => void;
  speak?: (voice: string) => void; // base64; without it there is no microphone here
}) {
  const { name, label, button, say, speak } = props;
  const key = `tropometer.said.${name}`;
  const [words, setWords] = useState(() => localStorage.getItem(key) ?? "");
  const [speaking, setSpeaking] = useState(false);
  const write = (text: string) => {
    setWords(text);
    keep(localStorage, key, text);
  };
  if (speaking && speak)
    return (
      <Suspense fallback={<p className="p-2">Opening the microphone …</p>}>
        <Speak
          done={(voice) => {
            setSpeaking(false);
            if (voice) speak(voice);
          }}
        />
      </Suspense>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!words.trim()) return;
        say(words.trim());
        write("");
      }}
    >
      <label className="block text-sm font-semibold">
        {label}
        <textarea
          className="textarea mt-1 w-full font-normal"
          rows={3}
          maxLength={4000}
          value={words}
          onChange={(event) => write(event.target.value)}
        />
      </label>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="submit" className="btn btn-primary" disabled={!words.trim()}>
          <Send size={16} aria-hidden /> {button}
        </button>
        {speak && (
          <button type="button" className="btn" onClick={() => setSpeaking(true)}>
            <Mic size={16} aria-hidden /> Speak it instead
          </button>
        )}
      </div>
    </form>
  );
}
