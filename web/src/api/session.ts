import { ApiError, csrfToken } from "./client";

const SESSION = "/_allauth/browser/v1/auth/session";
const LOGIN = "/_allauth/browser/v1/auth/login";

interface SignInAnswer {
  errors?: { message: string }[];
}

export async function signIn(email: string, password: string): Promise<void> {
  const answer = await send("POST", LOGIN, { email, password });
  if (answer.ok) return;
  if (answer.status === 429) throw new ApiError(429, "Too many tries. Wait a few minutes and try again.");
  const body: SignInAnswer = await answer.json().catch(() => ({}));
  throw new ApiError(
    answer.status,
    body.errors?.[0]?.message ?? "This mail and password do not go together.",
  );
}

/** Ends the session; the answer is 401 when it worked. */
export async function signOut(): Promise<void> {
  await send("DELETE", SESSION);
}

function send(method: string, url: string, body?: object): Promise<Response> {
  return fetch(url, {
    method,
    headers: { "Content-Type": "application/json", "X-CSRFToken": csrfToken() },
    body: body ? JSON.stringify(body) : undefined,
  }).catch(() => {
    throw new ApiError(0, "The server cannot be reached. Try again in a moment.");
  });
}
