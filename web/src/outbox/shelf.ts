import type { Kept, Shelf } from "./outbox";

const PREFIX = "tropometer.outbox";
const TAB = crypto.randomUUID();
// Held for as long as this tab lives, so that others know what they may take over.
const alive = `${PREFIX}.tab.${TAB}`;
void navigator.locks?.request(alive, () => new Promise(() => undefined));

/** The browser's storage as a shelf: a list for each tab and user, so that none writes over another's. */
export function browserShelf<Post>(user: string): Shelf<Post> {
  const own = `${PREFIX}.${user}.${TAB}`;
  return {
    async recall() {
      const kept: Kept<Post> = { waiting: [], aside: [] };
      for (const key of await leftBehind(`${PREFIX}.${user}.`, own)) {
        const left = read<Post>(key);
        kept.waiting.push(...left.waiting);
        kept.aside.push(...left.aside);
      }
      if (kept.waiting.length + kept.aside.length === 0 || this.keep(kept))
        for (const key of await leftBehind(`${PREFIX}.${user}.`, own)) localStorage.removeItem(key);
      return kept;
    },
    keep({ waiting, aside }) {
      try {
        if (waiting.length + aside.length) localStorage.setItem(own, JSON.stringify({ waiting, aside }));
        else localStorage.removeItem(own);
        return true;
      } catch {
        return false; // full, or forbidden: it is sent all the same
      }
    },
  };
}

/** Lists of tabs that are gone. */
async function leftBehind(prefix: string, own: string): Promise<string[]> {
  const held = new Set((await navigator.locks?.query())?.held?.map((lock) => lock.name) ?? []);
  const living = (key: string) => held.has(`${PREFIX}.tab.${key.slice(prefix.length)}`);
  return Object.keys(localStorage).filter((key) => key.startsWith(prefix) && key !== own && !living(key));
}

function read<Post>(key: string): Kept<Post> {
  try {
    const found = JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Kept<Post>>;
    return { waiting: found.waiting ?? [], aside: found.aside ?? [] };
  } catch {
    return { waiting: [], aside: [] };
  }
}
