import { expect, test } from "vitest";
import { askedAt, linkOf, partOf } from "./caching";

const TOKEN = "x".repeat(43);

test("each address belongs to its link, and what belongs to none is not kept", () => {
  expect(linkOf(`/l/${TOKEN}`)).toBe(`/l/${TOKEN}`);
  expect(linkOf(`/api/sheets/${TOKEN}/walk/voice.m4a`)).toBe(`/l/${TOKEN}`);
  expect(linkOf(`/api/pages/${TOKEN}`)).toBe(`/p/${TOKEN}`);
  for (const path of ["/api/pages/enter", "/api/pages/code", "/inbox", "/api/lessons/abc", `/s/${TOKEN}`])
    expect(linkOf(path)).toBeNull();
  expect(askedAt(`/l/${TOKEN}`)).toBe(`/api/sheets/${TOKEN}`);
});

test("a player gets the part that it asks for of a file that is kept whole", async () => {
  const kept = () => new Response(new Uint8Array([0, 1, 2, 3, 4, 5]));
  const part = async (range: string | null) => {
    const answer = await partOf(kept(), range);
    return [
      answer.status,
      answer.headers.get("Content-Range"),
      [...new Uint8Array(await answer.arrayBuffer())],
    ];
  };
  expect(await part("bytes=2-3")).toEqual([206, "bytes 2-3/6", [2, 3]]);
  expect(await part("bytes=4-")).toEqual([206, "bytes 4-5/6", [4, 5]]);
  expect(await part("bytes=4-99")).toEqual([206, "bytes 4-5/6", [4, 5]]);
  expect(await part("bytes=-2")).toEqual([206, "bytes 4-5/6", [4, 5]]);
  expect(await part("bytes=9-")).toEqual([416, "bytes */6", []]);
  expect(await part(null)).toEqual([200, null, [0, 1, 2, 3, 4, 5]]);
});
