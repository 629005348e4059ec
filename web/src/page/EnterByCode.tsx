import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { Field } from "../parts/Field";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { Wordmark } from "../parts/Wordmark";

/** The way to one's page without its link: a code that comes by mail. */
export function EnterByCode({ gone = false }: { gone?: boolean }) {
  const [email, setEmail] = useState("");
  usePageTitle("Your page");
  const ask = useMutation({ mutationFn: () => got(api.POST("/api/pages/code", { body: { email } })) });
  const enter = useMutation({
    mutationFn: (code: string) => got(api.POST("/api/pages/enter", { body: { email, code } })),
    onSuccess: ([only, ...others]) => {
      if (only && !others.length) window.location.assign(`/p/${only.token}`);
    },
  });
  return (
    <main className="mx-auto max-w-md p-4">
      <header className="mb-4 rounded bg-pine p-3 text-paper">
        <Wordmark />
      </header>
      <h1 className="text-xl font-bold">{gone ? "This link leads nowhere any more" : "Your page"}</h1>
      <p className="mt-1 mb-4">
        {gone ? "It may have been renewed. " : ""}A code comes by mail to the address that your instructor has
        of you. No password.
      </p>
      {enter.data && enter.data.length > 1 ? (
        <section>
          <h2 className="font-semibold">Whose page?</h2>
          <ul className="mt-2 grid gap-2">
            {enter.data.map((each) => (
              <li key={each.token}>
                <a className="btn w-full" href={`/p/${each.token}`}>
                  {each.student}, with {each.instructor}
                </a>
              </li>
            ))}
          </ul>
        </section>
      ) : ask.isSuccess ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            enter.mutate(String(new FormData(event.currentTarget).get("code")));
          }}
        >
          <p role="status" className="mb-3">
            If a page belongs to {email}, a code is on its way. It holds for a quarter of an hour.
          </p>
          <Field label="Code">
            <input
              className="input num w-full"
              name="code"
              required
              maxLength={40}
              autoComplete="one-time-code"
              autoCapitalize="characters"
              spellCheck={false}
            />
          </Field>
          {enter.error && <Trouble error={enter.error} />}
          <button type="submit" className="btn btn-primary w-full" disabled={enter.isPending}>
            Open
          </button>
          <button type="button" className="btn btn-ghost mt-2 w-full" onClick={() => ask.reset()}>
            Another address
          </button>
        </form>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            ask.mutate();
          }}
        >
          <Field label="Mail address">
            <input
              className="input w-full"
              type="email"
              name="email"
              required
              autoComplete="email"
              value={email}
              onChange={(event) => setEmail(event.target.value)}
            />
          </Field>
          {ask.error && <Trouble error={ask.error} />}
          <button type="submit" className="btn btn-primary w-full" disabled={ask.isPending}>
            Send me a code
          </button>
        </form>
      )}
    </main>
  );
}
