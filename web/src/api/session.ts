import { ApiError, csrfToken } from "./client";

const AUTH = "/_allauth/browser/v1";

interface Answer<Data> {
  data?: Data;
  detail?: string; // of a problem
  errors?: { message: string }[];
}

/** A browser that is signed in; times are seconds since 1970. */
export interface Session {
  id: number;
  user_agent: string;
  ip: string;
  created_at: number;
  is_current: boolean;
}

export async function signIn(email: string, password: string): Promise<void> {
  await ask("POST", "auth/login", { email, password }, "This mail and password do not go together.");
}

/** Ends this session; the answer is 401 when it worked. */
export async function signOut(): Promise<void> {
  await send("DELETE", "auth/session");
}

export async function sessions(): Promise<Session[]> {
  return (await ask<Session[]>("GET", "auth/sessions")) ?? [];
}

export async function endSessions(ids: number[]): Promise<void> {
  await ask("DELETE", "auth/sessions", { sessions: ids });
}

/** Has a link for a new password mailed, if there is such an account. */
export async function askForPassword(email: string): Promise<void> {
  await ask("POST", "auth/password/request", { email });
}

/** Sets a new password by the key of a mailed link; one is not signed in by it. */
export async function setPassword(key: string, password: string): Promise<void> {
  const answer = await send("POST", "auth/password/reset", { key, password });
  if (!answer.ok && answer.status !== 401) throw await trouble(answer, "The password was not set.");
}

export async function changePassword(current_password: string, new_password: string): Promise<void> {
  await ask("POST", "account/password/change", { current_password, new_password });
}

async function ask<Data>(
  method: string,
  path: string,
  body?: object,
  otherwise = "The server could not do that.",
): Promise<Data | undefined> {
  const answer = await send(method, path, body);
  if (!answer.ok) throw await trouble(answer, otherwise);
  return ((await answer.json()) as Answer<Data>).data;
}

async function trouble(answer: Response, otherwise: string): Promise<ApiError> {
  const body: Answer<unknown> = await answer.json().catch(() => ({}));
  const said = body.errors?.[0]?.message ?? body.detail;
  if (answer.status === 429) return new ApiError(429, said ?? "Too many tries. Wait a few minutes.");
  return new ApiError(answer.status, said ?? otherwise);
}

/** The page's own token comes as a cookie with a page; a browser that has lost it gets it anew. */
async function send(method: string, path: string, body?: object): Promise<Response> {
  if (!csrfToken()) await fetch("/sign-in").catch(() => undefined);
  return fetch(`${AUTH}/${path}`, {
    method,
    headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() },
    body: body ? JSON.stringify(body) : undefined,
  }).catch(() => {
    throw new ApiError(0, "The server cannot be reached. Try again in a moment.");
  });
}
