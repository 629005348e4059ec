/// <reference lib="webworker" />
import { askedAt, cacheOf, linkIn, linkOf, partOf, SCREENS } from "./caching";

declare const self: ServiceWorkerGlobalScope;

/*
 * Stands between a student's page and the server: what was opened once can be read without a connection. The
 * server's word goes first while it can be reached, and what a closed link has shown is dropped at the first contact.
 */

self.addEventListener("install", () => void self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin) return;
  const link = linkOf(pathname);
  if (link) event.respondWith(fromServer(request, link));
  else if (pathname.startsWith("/static/")) event.respondWith(fromShelf(request, pathname));
});

/** A page says which files of its link are worth keeping. */
self.addEventListener("message", (event: ExtendableMessageEvent) => {
  const { keep } = event.data as { keep: string[] };
  event.waitUntil(Promise.all(keep.map(kept)));
});

async function fromServer(request: Request, link: string): Promise<Response> {
  const range = request.headers.get("Range");
  try {
    const answer = await fetch(request);
    if (answer.status === 404) await dropClosed();
    else if (answer.status === 200 && !isSaved(answer)) await put(cacheOf(link), request.url, answer.clone());
    return answer;
  } catch (trouble) {
    const found = await (await caches.open(cacheOf(link))).match(request.url, {
      ignoreSearch: isPage(request),
    });
    if (!found) throw trouble;
    return partOf(found, range);
  }
}

/** A file to be saved lies with its reader already. */
const isSaved = (answer: Response) =>
  answer.headers.get("Content-Disposition")?.startsWith("attachment") ?? false;

const isPage = (request: Request) => request.mode === "navigate";

/** Scripts and fonts, whose names change with what is in them; drawings are asked for anew while that is possible. */
async function fromShelf(request: Request, path: string): Promise<Response> {
  const found = await (await caches.open(SCREENS)).match(request.url);
  const named = path.startsWith("/static/assets/");
  const answer = found && named ? null : await fetch(request).catch(() => null);
  if (answer?.status === 200) await put(SCREENS, request.url, answer.clone());
  if (answer) return answer;
  return found ? partOf(found, request.headers.get("Range")) : Response.error();
}

async function kept(path: string): Promise<void> {
  const link = linkOf(new URL(path, self.location.origin).pathname);
  const cache = await caches.open(link ? cacheOf(link) : SCREENS);
  const url = new URL(path, self.location.origin).href;
  if (await cache.match(url)) return;
  const answer = await fetch(url).catch(() => null);
  if (answer?.status === 200) await put(link ? cacheOf(link) : SCREENS, url, answer);
}

/** A full disk only means that less can be read without a connection. */
async function put(name: string, url: string, answer: Response): Promise<void> {
  await (await caches.open(name)).put(url, answer).catch(() => undefined);
}

/** A link leads nowhere any more: ask of each that is kept, and drop what the server no longer shows. */
async function dropClosed(): Promise<void> {
  for (const name of await caches.keys()) {
    const link = linkIn(name);
    const answer = link && (await fetch(askedAt(link), { method: "GET" }).catch(() => null));
    if (answer && answer.status === 404) await caches.delete(name);
  }
}
