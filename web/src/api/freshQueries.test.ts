import { QueryObserver } from "@tanstack/react-query";
import { expect, test } from "vitest";
import { Queries } from "./freshQueries";

test("a change made while the first answer is on its way is in what is shown", async () => {
  const queries = new Queries();
  let kept = ["an old note"];
  const answers: (() => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ["notes"],
    queryFn: () => {
      const asked = kept; // as the server reads it, before a slow line
      return new Promise<string[]>((come) => answers.push(() => come(asked)));
    },
  });
  const stop = observer.subscribe(() => {});
  await expect.poll(() => answers.length).toBe(1);
  kept = [...kept, "a new one"];
  const settled = queries.invalidateQueries({ queryKey: ["notes"] });
  await expect.poll(() => answers.length).toBe(2);
  for (const answer of answers) answer();
  await settled;
  expect(observer.getCurrentResult().data).toEqual(["an old note", "a new one"]);
  stop();
});
