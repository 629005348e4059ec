import createClient, { type Middleware } from "openapi-fetch";
import { connectionLost } from "./connection";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** An answer that was not what was asked for; `message` is fit to be shown. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

export function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1] ?? "";
}

const withCsrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin });
api.use(withCsrf);

/** The data of an answer, or an ApiError that says what went wrong in words. */
export async function got<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer.catch(() => {
    connectionLost();
    throw new ApiError(0, "The server cannot be reached. Nothing is lost; try again in a moment.");
  });
  if (!response.ok) throw new ApiError(response.status, detail(error) ?? said(response.status));
  return data as T;
}

export function detail(error: unknown): string | undefined {
  if (error && typeof error === "object" && "detail" in error && typeof error.detail === "string")
    return error.detail;
}

export function said(status: number): string {
  if (status === 401 || status === 403) return "You are signed out. Sign in again; your work is kept.";
  if (status === 404) return "This is not here, or it is not yours.";
  if (status === 413) return "The file is too large.";
  return `The server could not do that (${status}).`;
}
