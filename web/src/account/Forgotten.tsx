import { useMutation } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { Link } from "react-router";
import { askForPassword } from "../api/session";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { DoorPlate } from "./DoorPlate";

/** Asks for a link by mail with which a new password is set. */
export function Forgotten() {
  const ask = useMutation({ mutationFn: askForPassword });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    ask.mutate(String(new FormData(event.currentTarget).get("email")));
  };
  return (
    <DoorPlate title="A new password">
      {ask.isSuccess ? (
        <p role="status">If there is an account with this address, a mail with a link is on its way to it.</p>
      ) : (
        <form onSubmit={submit}>
          <Field label="Mail address">
            <input className="input w-full" name="email" type="email" autoComplete="username" required />
          </Field>
          {ask.error && <Trouble error={ask.error} />}
          <button type="submit" className="btn btn-primary w-full" disabled={ask.isPending}>
            Send me a link
          </button>
        </form>
      )}
      <Link to="/sign-in" className="link mt-4 block text-sm">
        Back to signing in
      </Link>
    </DoorPlate>
  );
}
