import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { type Item, type Kept, Outbox, type Outcome, type Told } from "./outbox";

type Words = { words: string };

const TAKEN: Outcome = { kind: "taken", answer: "done" };
const OFFLINE: Outcome = { kind: "later", because: "offline", reason: "nobody there" };
const BROKEN: Outcome = { kind: "later", because: "trouble", reason: "it broke" };
const REFUSED: Outcome = { kind: "refused", reason: "no such frame" };

const item = (words: string, lane = "clip", subject = words): Item<Words> => ({
  id: `${lane} ${words}`,
  lane,
  subject,
  what: words,
  post: { words },
});

/** An outbox before a server that answers as `answers` says, and a browser that keeps or does not. */
function setUp(answers: (items: Item<Words>[]) => Outcome | Promise<Outcome>, keeps = true) {
  const sent: string[][] = [];
  const kept: Kept<Words>[] = [];
  let told: Told<Words> | undefined;
  const box = new Outbox<Words>(
    async (items) => {
      sent.push(items.map(({ post }) => post.words));
      return answers(items);
    },
    {
      recall: async () => kept.at(-1) ?? { waiting: [], aside: [] },
      keep: (now) => {
        if (keeps) kept.push(structuredClone(now));
        return keeps;
      },
    },
    { told: (now) => (told = now), taken: () => undefined },
    (lane) => lane === "clip",
  );
  return { box, sent, kept, told: () => told };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const later = (ms: number) => vi.advanceTimersByTimeAsync(ms);

describe("an outbox", () => {
  test("says saved only when the server has all of it", async () => {
    const { box, told } = setUp(() => TAKEN);
    box.add(item("a"), 50);
    expect(told()?.saving).toBe("saving");
    await later(60);
    expect(told()).toMatchObject({ saving: "saved", waiting: 0 });
  });

  test("keeps what nobody took and sends it again by itself, in order", async () => {
    let there = false;
    const { box, sent, told } = setUp(() => (there ? TAKEN : OFFLINE));
    box.add(item("a"));
    await later(10);
    expect(told()?.saving).toBe("offline");
    box.add(item("b"));
    there = true;
    await later(10_000);
    expect(sent.at(-1)).toEqual(["a", "b"]);
    expect(told()?.saving).toBe("saved");
  });

  test("finds the one item that the server will not take, and lets the others through", async () => {
    const { box, sent, told } = setUp((items) =>
      items.some(({ id }) => id.endsWith("bad")) ? REFUSED : TAKEN,
    );
    for (const words of ["a", "bad", "b"]) box.add(item(words), 50);
    await later(200);
    expect(sent).toEqual([["a", "bad", "b"], ["a"], ["bad"], ["b"]]);
    expect(told()?.aside.map(({ what, reason }) => [what, reason])).toEqual([["bad", "no such frame"]]);
    expect(told()).toMatchObject({ saving: "saved", waiting: 0 });
  });

  test("sets an item aside at which the server breaks each time", async () => {
    const { box, told } = setUp((items) => (items[0]?.id.endsWith("bad") ? BROKEN : TAKEN));
    box.add(item("bad"));
    box.add(item("elsewhere", "other clip"));
    await later(30_000);
    expect(told()?.aside.map(({ reason }) => reason)).toEqual(["it broke"]);
    expect(told()?.waiting).toBe(0);
  });

  test("a lane that waits does not hold the others", async () => {
    const { box, sent, told } = setUp((items) => (items[0]?.lane === "lesson" ? OFFLINE : TAKEN));
    box.add(item("words", "lesson"));
    box.add(item("mark"));
    await later(10);
    expect(sent).toContainEqual(["mark"]);
    expect(told()).toMatchObject({ saving: "offline", waiting: 1 });
  });

  test("an item that was set aside can be tried again or let go", async () => {
    let takes = false;
    const { box, told } = setUp(() => (takes ? TAKEN : REFUSED));
    box.add(item("a"));
    box.add(item("b", "other"));
    await later(10);
    takes = true;
    box.tryAgain("clip a");
    box.drop("other b");
    await later(10);
    expect(told()).toMatchObject({ aside: [], waiting: 0, saving: "saved" });
  });

  test("of words about one thing only the last go, once the writer pauses", async () => {
    const { box, sent, kept } = setUp(() => TAKEN);
    for (const words of ["H", "He", "Hel"]) {
      box.add(item(words, "lesson", "opening"), 400, true);
      await later(300);
    }
    expect(sent).toEqual([]);
    expect(kept.at(-1)?.waiting.map(({ post }) => post.words)).toEqual(["Hel"]); // kept with every letter
    await later(200);
    expect(sent).toEqual([["Hel"]]);
  });

  test("a killed browser's old list undoes nothing that was saved after it", async () => {
    const server = { words: "", taken: new Set<string>() };
    const take = ([only]: Item<Words>[]) => {
      if (only && !server.taken.has(only.id)) server.words = only.post.words;
      if (only) server.taken.add(only.id);
    };
    // Lost on the way there, taken, taken but the answer lost.
    const fates = [OFFLINE, TAKEN, null, TAKEN, OFFLINE, null];
    let calls = 0;
    const { box, kept, told } = setUp((items) => {
      const fate = fates[calls++ % fates.length];
      if (fate !== OFFLINE) take(items);
      return fate ?? OFFLINE;
    });
    for (let n = 0; n < 24; n++) {
      box.add({ ...item(`words ${n}`, "lesson", "opening"), id: `id ${n}` }, 400, true);
      await later(n % 3 ? 100 : 900);
    }
    await later(60_000);
    expect(told()?.saving).toBe("saved");
    expect(server.words).toBe("words 23");
    for (const old of kept.filter(({ waiting }) => waiting.length)) {
      const after = setUp((items) => {
        take(items);
        return TAKEN;
      });
      after.kept.push(old);
      await after.box.recall();
      await later(1000);
      expect(after.sent.length).toBeGreaterThan(0);
      expect(server.words).toBe("words 23");
    }
  });

  test("newer words are not undone by older ones that come back from a lost connection", async () => {
    const answers: ((outcome: Outcome) => void)[] = [];
    const { box, sent } = setUp(() => new Promise<Outcome>((answer) => answers.push(answer)));
    box.add(item("old", "lesson", "opening"));
    await later(10);
    box.add(item("new", "lesson", "opening"));
    answers[0]?.(OFFLINE);
    await later(1000);
    answers[1]?.(TAKEN);
    await later(10);
    expect(sent).toEqual([["old"], ["old"], ["new"]]);
  });

  test("goes on with what a closed tab has left", async () => {
    const { box, sent, kept } = setUp(() => TAKEN);
    kept.push({ waiting: [item("left")], aside: [{ ...item("no"), reason: "refused" }] });
    await box.recall();
    await later(10);
    expect(sent).toEqual([["left"]]);
    expect(kept.at(-1)).toMatchObject({ waiting: [], aside: [{ reason: "refused" }] });
  });

  test("sends all the same when the browser's storage is full, and says so", async () => {
    let there = false;
    const { box, sent, told } = setUp(() => (there ? TAKEN : OFFLINE), false);
    box.add(item("a"));
    await later(10);
    expect(told()).toMatchObject({ stored: false, waiting: 1 });
    there = true;
    box.hurry();
    await later(10);
    expect(sent.at(-1)).toEqual(["a"]);
    expect(told()?.saving).toBe("saved");
  });
});
