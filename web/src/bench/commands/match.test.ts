import { describe, expect, it } from "vitest";
import { elsewhere, meant } from "./match";
import { COMMAND_IDS, commandOf } from "./table";

/** A key as a keyboard sends it. */
function key(printed: string, code = "", ...modifiers: string[]): KeyboardEvent {
  const on = (name: string) => modifiers.includes(name);
  return {
    key: printed,
    code,
    ctrlKey: on("Control"),
    metaKey: on("Meta"),
    getModifierState: on,
  } as unknown as KeyboardEvent;
}

describe("the table of commands", () => {
  it("gives no key two meanings at one station", () => {
    for (const station of ["mark", "read", "judge", "tell"] as const) {
      const taken = new Map<string, string>();
      for (const id of COMMAND_IDS) {
        const { keys, at = [station] } = commandOf(id);
        if (!at.includes(station)) continue;
        for (const each of keys) {
          expect(taken.get(each), `${each} at ${station}: ${id}`).toBeUndefined();
          taken.set(each, id);
        }
      }
    }
  });

  it("reads a key by the station it is pressed at", () => {
    expect(meant(key("u", "KeyU"), "mark")).toMatchObject({ id: "plumb", here: true });
    expect(meant(key("u", "KeyU"), "read")).toMatchObject({ id: "uncover", here: true });
    expect(meant(key("2", "Digit2"), "mark")).toMatchObject({ id: "take_mark", place: 1 });
    expect(meant(key("2", "Digit2"), "read")).toMatchObject({ id: "drawer_part", place: 1 });
    expect(meant(key("n", "KeyN"), "judge")).toMatchObject({ id: "round", here: false });
    expect(elsewhere("round")).toContain("done at Mark (M)");
    expect(meant(key("µ"), "mark")).toBeNull();
  });

  it("works on layouts that print otherwise", () => {
    // French: digits need Shift, what is printed without it are other signs.
    expect(meant(key("é", "Digit2"), "mark")).toMatchObject({ id: "take_mark", place: 1 });
    expect(meant(key("2", "Digit2", "Shift"), "mark")).toMatchObject({ id: "peg", place: 1 });
    // German: brackets and braces need AltGr, and Shift 7 prints a slash.
    for (const altGr of [["AltGraph"], ["AltGraph", "Control", "Alt"]]) {
      expect(meant(key("[", "Digit8", ...altGr), "mark")?.id).toBe("peg_before");
      expect(meant(key("}", "Digit0", ...altGr), "mark")?.id).toBe("ends_here");
    }
    expect(meant(key("/", "Digit7", "Shift"), "mark")).toMatchObject({ id: "peg", place: 6 });
    expect(meant(key("PageUp", "PageUp"), "mark")?.id).toBe("peg_before");
    expect(meant(key("?", "Minus", "Shift"), "read")?.id).toBe("help");
    // Where Z and Y change places the printed letter counts.
    expect(meant(key("z", "KeyY"), "mark")?.id).toBe("pull_back");
    expect(meant(key("4", "Numpad4"), "mark")).toMatchObject({ id: "take_mark", place: 3 });
  });

  it("leaves the browser its own keys", () => {
    expect(meant(key("-", "Minus", "Control"), "mark")).toBeNull();
    expect(meant(key("r", "KeyR", "Control"), "mark")).toBeNull();
    expect(meant(key("a", "KeyA", "Alt"), "mark")).toBeNull();
    expect(meant(key("z", "KeyZ", "Control"), "mark")?.id).toBe("undo");
    expect(meant(key("Z", "KeyZ", "Control", "Shift"), "mark")?.id).toBe("redo");
    expect(meant(key("k", "KeyK", "Control"), "tell")?.id).toBe("palette");
  });

  it("tells letters by Shift alone, whatever Caps Lock does", () => {
    expect(meant(key("T", "KeyT", "Shift"), "mark")?.id).toBe("peg_top");
    expect(meant(key("T", "KeyT"), "mark")?.id).toBe("tell");
  });
});
