import { afterEach, expect, test, vi } from "vitest";
import { ClipFile } from "./clipFile";

const MB = 1024 * 1024;
const bytes = Uint8Array.from({ length: 3 * MB }, (_, i) => i % 251);

afterEach(() => vi.unstubAllGlobals());

/** A server that gives the file in pieces as told, and counts what is asked of it. */
function serve() {
  const asked: string[] = [];
  let flow: ReadableStreamDefaultController<Uint8Array> | undefined;
  const body = new ReadableStream<Uint8Array>({
    start: (control) => {
      flow = control;
    },
  });
  vi.stubGlobal("fetch", async (_: string, init?: { headers?: { Range: string } }) => {
    const range = init?.headers?.Range;
    asked.push(range ?? "whole");
    if (!range) return new Response(body, { headers: { "Content-Length": `${bytes.length}` } });
    const [first, last] = range.replace("bytes=", "").split("-").map(Number);
    return new Response(bytes.slice(first, (last ?? 0) + 1), { status: 206 });
  });
  return {
    asked,
    give: (from: number, to: number) => flow?.enqueue(bytes.slice(from, to)),
    flow: () => flow,
  };
}

test("a clip's file: all is read out of one download, and what is near waits for it", async () => {
  const { asked, give } = serve();
  const file = await ClipFile.open("/clip");
  expect(file.size).toBe(bytes.length);
  const near = file.read(100, 200);
  give(0, MB);
  expect(await near).toEqual(bytes.slice(100, 200));
  const later = file.read(MB - 10, MB + 10);
  give(MB, 2 * MB);
  expect(await later).toEqual(bytes.slice(MB - 10, MB + 10));
  expect(asked).toEqual(["whole"]);
});

test("a clip's file: a far jump asks for its own piece alone", async () => {
  const { asked, give } = serve();
  const file = await ClipFile.open("/clip");
  give(0, 1000);
  expect(await file.read(2 * MB, 2 * MB + 50)).toEqual(bytes.slice(2 * MB, 2 * MB + 50));
  expect(asked).toEqual(["whole", `bytes=${2 * MB}-${2 * MB + 49}`]);
});

test("a clip's file: where the download breaks off the rest is asked for piece by piece", async () => {
  const { asked, give, flow } = serve();
  const file = await ClipFile.open("/clip");
  give(0, 1000);
  const beyond = file.read(900, 1100);
  flow()?.error(new Error("gone"));
  expect(await beyond).toEqual(bytes.slice(900, 1100));
  expect(await file.read(0, 500)).toEqual(bytes.slice(0, 500));
  expect(asked).toEqual(["whole", "bytes=900-1099"]);
});

test("a clip's file: a network that is gone for a while is waited for, at the start as well", async () => {
  vi.useFakeTimers();
  const { asked, give } = serve();
  const there = globalThis.fetch;
  let away = 2;
  vi.stubGlobal("fetch", async (...call: Parameters<typeof fetch>) => {
    if (away-- > 1) throw new TypeError("Failed to fetch");
    return away === 0 ? new Response("", { status: 502 }) : there(...call);
  });
  const opening = ClipFile.open("/clip");
  await vi.advanceTimersByTimeAsync(2500);
  const file = await opening;
  give(0, 1000);
  expect(await file.read(0, 500)).toEqual(bytes.slice(0, 500));
  expect(asked).toEqual(["whole"]);
  vi.useRealTimers();
});
