import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { signIn } from "../api/session";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { Wordmark } from "../parts/Wordmark";

export function SignIn() {
  usePageTitle("Sign in");
  const [params] = useSearchParams();
  const go = useNavigate();
  const queries = useQueryClient();
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setError(null);
    try {
      await signIn(String(form.get("email")), String(form.get("password")));
      queries.clear();
      const next = params.get("next") ?? "/inbox";
      go(next.startsWith("/") && !next.startsWith("//") ? next : "/inbox", { replace: true });
    } catch (trouble) {
      setError(trouble as Error);
      setBusy(false);
    }
  };
  return (
    <main className="grid min-h-full place-items-center p-4">
      <form onSubmit={submit} className="plate w-full max-w-sm p-6">
        <h1 className="text-base-content">
          <Wordmark large />
        </h1>
        <p className="mt-1 mb-5 text-sm">Footwork, measured frame by frame.</p>
        <Field label="Mail address">
          <input className="input w-full" name="email" type="email" autoComplete="username" required />
        </Field>
        <Field label="Password">
          <input
            className="input w-full"
            name="password"
            type="password"
            autoComplete="current-password"
            required
          />
        </Field>
        {error && <Trouble error={error} />}
        <button type="submit" className="btn btn-primary mt-4 w-full" disabled={busy}>
          Sign in
        </button>
        <Link to="/forgotten" className="link mt-4 block text-sm">
          Forgotten the password?
        </Link>
      </form>
    </main>
  );
}
