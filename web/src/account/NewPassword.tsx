import { useMutation } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { Link, useParams } from "react-router";
import { setPassword } from "../api/session";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { DoorPlate } from "./DoorPlate";

/** Behind the link of a mail: sets a new password. */
export function NewPassword() {
  const { key = "" } = useParams();
  const set = useMutation({ mutationFn: (password: string) => setPassword(key, password) });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    set.mutate(String(new FormData(event.currentTarget).get("password")));
  };
  return (
    <DoorPlate title="Choose a new password">
      {set.isSuccess ? (
        <>
          <p role="status">Your new password is set.</p>
          <Link to="/sign-in" className="btn btn-primary mt-4 w-full">
            Sign in with it
          </Link>
        </>
      ) : (
        <form onSubmit={submit}>
          <Field label="New password" hint="At least 8 characters, and none of the usual ones.">
            <input
              className="input w-full"
              name="password"
              type="password"
              autoComplete="new-password"
              required
            />
          </Field>
          {set.error && <Trouble error={set.error} />}
          <button type="submit" className="btn btn-primary w-full" disabled={set.isPending}>
            Set it
          </button>
          <Link to="/forgotten" className="link mt-4 block text-sm">
            The link is too old? Ask for another
          </Link>
        </form>
      )}
    </DoorPlate>
  );
}
