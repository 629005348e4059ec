import type { Schemas } from "../api/client";
import { Paragraphs } from "../lesson/Paragraphs";
import { when } from "../parts/when";

type Side = Schemas["MessageOut"]["side"];
export type ThreadMessage = Schemas["MessageOut"] & { waits?: boolean };

/** What was said to and fro, the oldest first. `own`: whose screen this is. */
export function Thread(props: {
  messages: ThreadMessage[];
  own: Side;
  other: string;
  voice: (id: string) => string;
}) {
  const { messages, own, other, voice } = props;
  if (!messages.length) return null;
  return (
    <ol className="grid gap-2" aria-label={`What was said with ${other}`}>
      {messages.map((message) => (
        <li
          key={message.id}
          className={`plate max-w-[88%] p-2.5 ${message.side === own ? "justify-self-end border-r-4 border-r-pine" : "justify-self-start border-l-4 border-l-brass"}`}
        >
          <p className="text-xs opacity-85">
            {message.side === own ? "You" : other} · {when(message.said_at)}
            {message.waits && " · kept here, not sent yet"}
            {message.side === own && !message.waits && message.seen_at && " · seen"}
          </p>
          {message.words && (
            <div className="break-words [&>p:last-child]:mb-0">
              <Paragraphs text={message.words} />
            </div>
          )}
          {message.voice_ms > 0 && (
            // biome-ignore lint/a11y/useMediaCaption: spoken on the spot; nobody has written it down
            <audio
              controls
              preload="none"
              src={voice(message.id)}
              className="mt-1 h-10 w-full min-w-56"
              aria-label={`Spoken, ${Math.round(message.voice_ms / 1000)} seconds`}
            />
          )}
          {message.waits && !message.words && <p className="italic">Your spoken question</p>}
        </li>
      ))}
    </ol>
  );
}
