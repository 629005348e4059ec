/** Where the pages of students keep what they have opened: one cache a link, and one for scripts and fonts. */
const OWN = "tropometer own ";
export const SCREENS = "tropometer screens";

const PRIVATE = /^\/(?:api\/(sheets|pages)|(l|p))\/([A-Za-z0-9_-]{20,})(?:\/|$)/;
const PAGE_OF = { sheets: "l", pages: "p" } as const;

/** The link that an address belongs to, such as "/l/TOKEN"; null for what belongs to none. */
export function linkOf(path: string): string | null {
  const [, room, page, token] = PRIVATE.exec(path) ?? [];
  if (!token) return null;
  return `/${page ?? PAGE_OF[room as keyof typeof PAGE_OF]}/${token}`;
}

/** Under which name what a link has shown is kept, and back. */
export const cacheOf = (link: string) => OWN + link;
export const linkIn = (cache: string) => (cache.startsWith(OWN) ? cache.slice(OWN.length) : null);

/** The address that says whether a link still leads anywhere. */
export function askedAt(link: string): string {
  const [, page, token] = link.split("/");
  return `/api/${page === "l" ? "sheets" : "pages"}/${token}`;
}

/** A kept file as a player asks for it: whole, or a part (RFC 9110, 14.2). */
export async function partOf(kept: Response, range: string | null): Promise<Response> {
  const [, from = "", to = ""] = /^bytes=(\d*)-(\d*)$/.exec(range ?? "") ?? [];
  if (!from && !to) return kept;
  const body = await kept.arrayBuffer();
  const start = from ? Number(from) : Math.max(0, body.byteLength - Number(to));
  const end = from && to ? Math.min(Number(to), body.byteLength - 1) : body.byteLength - 1;
  const headers = new Headers(kept.headers);
  if (start > end) {
    headers.set("Content-Range", `bytes */${body.byteLength}`);
    return new Response(null, { status: 416, headers });
  }
  headers.set("Content-Range", `bytes ${start}-${end}/${body.byteLength}`);
  headers.set("Content-Length", String(end - start + 1));
  return new Response(body.slice(start, end + 1), { status: 206, headers });
}
