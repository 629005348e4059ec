import { Link, useLocation } from "react-router";
import { useOutbox } from "../outbox";
import { Note, UnsentNotes } from "./UnsentNotes";

const WORDS = {
  idle: "",
  saved: "Saved",
  saving: "Saving…",
  offline: "Kept here, not sent",
  "signed-out": "Kept here, not sent",
  trouble: "Kept here, not sent",
} as const;

/** One word in the header: whether all that was done here is on the server. */
export function SavingWord() {
  const saving = useOutbox((box) => box.saving);
  return (
    <span role="status" className="text-xs whitespace-nowrap">
      {WORDS[saving]}
    </span>
  );
}

/** What keeps an instructor's work from reaching the server, and what the server would not take. */
export function OutboxNotes() {
  const signedOut = useOutbox((box) => box.saving === "signed-out");
  const here = useLocation();
  return (
    <>
      {signedOut && (
        <Note>
          You are signed out. What you did is kept in this browser;{" "}
          <Link className="link" to={`/sign-in?next=${encodeURIComponent(here.pathname + here.search)}`}>
            sign in
          </Link>{" "}
          to save it.
        </Note>
      )}
      <UnsentNotes />
    </>
  );
}
