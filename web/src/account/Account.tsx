import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useRef } from "react";
import { api, got } from "../api/client";
import { meQuery } from "../api/queries";
import { changePassword, endSessions, type Session, sessions } from "../api/session";
import { MailWish, type Wish } from "../page/MailWish";
import { Field } from "../parts/Field";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";
import { chooseLook, LOOKS, type Look, useLook } from "../shell/theme";
import { OwnLook } from "./OwnLook";

/** The instructor's own account: its address, its password, and where it is signed in. */
export function Account() {
  const me = useQuery(meQuery).data;
  return (
    <Page title="Account">
      <p>
        {me?.name}, <span className="break-all">{me?.email}</span>
      </p>
      <p className="text-sm opacity-85">
        The mail address is changed by whoever runs this server. Each change to the account is told there by
        mail.
      </p>
      <div className="mt-5 gap-6 md:columns-2 [&>*]:mb-6 [&>*]:break-inside-avoid">
        <OwnLook />
        <Sessions />
        <Password />
        <Mails />
        <LookChoice />
      </div>
    </Page>
  );
}

/** Day or dusk, in this browser. */
function LookChoice() {
  const look = useLook((state) => state.look);
  return (
    <fieldset className="plate p-4">
      <legend className="float-left mb-3 w-full text-lg font-semibold">Look</legend>
      {(Object.keys(LOOKS) as Look[]).map((each) => (
        <label key={each} className="clear-left flex items-center gap-2 py-1">
          <input
            type="radio"
            name="look"
            className="radio radio-sm"
            checked={look === each}
            onChange={() => chooseLook(each)}
          />
          {LOOKS[each]}
        </label>
      ))}
    </fieldset>
  );
}

/** How often students' questions and swings are told by mail. */
function Mails() {
  const queries = useQueryClient();
  const wish = useQuery(meQuery).data?.mail_wish;
  const change = useMutation({
    mutationFn: (mail_wish: Wish) => got(api.PATCH("/api/me", { body: { mail_wish } })),
    onSuccess: (me) => queries.setQueryData(meQuery.queryKey, me),
  });
  if (!wish) return null;
  return (
    <section className="plate p-4">
      {change.error && <Trouble error={change.error} />}
      <MailWish
        wish={change.isPending ? change.variables : wish}
        change={change.mutate}
        hint="Questions, new swings, and what was felt where it must not be; for each student on its own."
      />
    </section>
  );
}

function Password() {
  const form = useRef<HTMLFormElement>(null);
  const change = useMutation({
    mutationFn: ({ now, next }: { now: string; next: string }) => changePassword(now, next),
    onSuccess: () => form.current?.reset(),
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    change.mutate({ now: String(data.get("now")), next: String(data.get("next")) });
  };
  return (
    <form ref={form} onSubmit={submit} className="plate p-4">
      <h2 className="mb-3 text-lg font-semibold">Password</h2>
      <Field label="Present password">
        <input className="input w-full" name="now" type="password" autoComplete="current-password" required />
      </Field>
      <Field label="New password" hint="At least 8 characters, and none of the usual ones.">
        <input className="input w-full" name="next" type="password" autoComplete="new-password" required />
      </Field>
      {change.error && <Trouble error={change.error} />}
      {change.isSuccess && (
        <p role="status" className="mb-3 text-sm">
          The password is changed.
        </p>
      )}
      <button type="submit" className="btn btn-primary" disabled={change.isPending}>
        Change the password
      </button>
    </form>
  );
}

function Sessions() {
  const queries = useQueryClient();
  const found = useQuery({ queryKey: ["sessions"], queryFn: sessions });
  const end = useMutation({
    mutationFn: endSessions,
    onSettled: () => queries.invalidateQueries({ queryKey: ["sessions"] }),
  });
  const others = found.data?.filter((each) => !each.is_current) ?? [];
  return (
    <section className="plate p-4" aria-label="Where you are signed in">
      <h2 className="mb-3 text-lg font-semibold">Where you are signed in</h2>
      {(found.error ?? end.error) && <Trouble error={(found.error ?? end.error) as Error} />}
      <ul className="grid gap-2">
        {found.data?.map((each) => (
          <li key={each.id} className="flex items-center gap-3 text-sm">
            <span className="min-w-0 flex-1">
              {browserOf(each)}, <span className="num">{each.ip}</span>
              <span className="block text-xs opacity-85">
                {each.is_current
                  ? "this browser"
                  : `since ${when(new Date(each.created_at * 1000).toISOString())}`}
              </span>
            </span>
            {!each.is_current && (
              <button
                type="button"
                className="btn btn-sm"
                disabled={end.isPending}
                onClick={() => end.mutate([each.id])}
              >
                End
              </button>
            )}
          </li>
        ))}
      </ul>
      {others.length > 1 && (
        <button
          type="button"
          className="btn btn-sm mt-3"
          disabled={end.isPending}
          onClick={() => end.mutate(others.map((each) => each.id))}
        >
          End all others
        </button>
      )}
    </section>
  );
}

const BROWSERS = ["Firefox", "Edg", "Chrome", "Safari"];
const SYSTEMS = ["Android", "iPhone", "iPad", "Windows", "Mac OS", "Linux"];

/** "Chrome on Android" out of what a browser says of itself. */
function browserOf({ user_agent }: Session): string {
  const browser = BROWSERS.find((each) => user_agent.includes(each)) ?? "A browser";
  const system = SYSTEMS.find((each) => user_agent.includes(each));
  return `${browser === "Edg" ? "Edge" : browser}${system ? ` on ${system}` : ""}`;
}
