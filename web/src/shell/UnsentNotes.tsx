import { RotateCcw, X } from "lucide-react";
import type { ReactNode } from "react";
import { outbox, useOutbox } from "../outbox";
import type { Aside } from "../outbox/outbox";
import type { Post } from "../outbox/posts";

/** What the server cannot or would not take, whoever made it. */
export function UnsentNotes() {
  const { saving, aside, stored, waiting } = useOutbox();
  return (
    <>
      {saving === "trouble" && (
        <Note>The server has trouble and cannot save just now. Your work is kept here and tried again.</Note>
      )}
      {!stored && waiting > 0 && (
        <Note>This browser's storage is full: keep this tab open until it says “Saved”.</Note>
      )}
      {aside.length > 0 && (
        <section aria-label="Set aside" className="border-b border-brass bg-base-200 px-4 py-2 text-sm">
          <p className="font-medium">
            The server would not take {aside.length === 1 ? "this" : `these ${aside.length}`}; all else is
            saved.
          </p>
          <ul className="mt-1 grid max-h-40 gap-1 overflow-y-auto">
            {aside.map((item) => (
              <AsideLine key={item.id} item={item} />
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function AsideLine({ item }: { item: Aside<Post> }) {
  const words = wordsIn(item.post);
  return (
    <li className="flex flex-wrap items-center gap-2">
      <span className="font-medium first-letter:uppercase">{item.what}:</span>
      <span className="min-w-0 break-words">{item.reason}</span>
      {words && <q className="max-w-prose truncate italic">{words}</q>}
      <span className="ml-auto flex gap-1">
        {words && (
          <button type="button" className="btn btn-xs" onClick={() => navigator.clipboard.writeText(words)}>
            Copy the words
          </button>
        )}
        <button type="button" className="btn btn-xs" onClick={() => outbox().tryAgain(item.id)}>
          <RotateCcw size={12} aria-hidden /> Try again
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Let go of ${item.what}`}
          onClick={() => outbox().drop(item.id)}
        >
          <X size={12} aria-hidden />
        </button>
      </span>
    </li>
  );
}

/** What somebody typed, so that it can be copied before it is let go. */
function wordsIn(post: Post): string | null {
  if (post.kind === "decision") return post.said.reason || null;
  if (post.kind === "plan")
    return (
      post.plan?.focus
        .map(({ words }) => words)
        .join("\n")
        .trim() || null
    );
  if (post.kind === "lesson") return post.change.opening ?? post.change.title ?? null;
  if (post.kind === "ask" || post.kind === "answer") return post.message.words || null;
  if (post.kind === "tick") return post.tick.words || null;
  return post.kind === "frame" ? (post.change.words ?? null) : null;
}

export function Note({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="border-b border-brass bg-base-200 px-4 py-1.5 text-sm">
      {children}
    </p>
  );
}
