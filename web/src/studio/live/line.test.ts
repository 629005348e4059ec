import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Device, HourLine, lineAddress, withDevice } from "./line";

const NONE = { taken: 0, doubled: 0, late: 0, lost: 0, nonsense: 0, jumps: 0 };
const device = (id: string, there = true, name = "Mat"): Device => ({
  kind: "device",
  id,
  device: "plate",
  name,
  there,
  counts: NONE,
  clock_u95_s: null,
});

class Socket {
  static made: Socket[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: (() => void) | null = null;
  closed = false;
  constructor(readonly address: string) {
    Socket.made.push(this);
  }
  close() {
    this.closed = true;
    this.onclose?.();
  }
}

describe("an hour's line", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal("window", globalThis);
    vi.stubGlobal("WebSocket", Socket);
    Socket.made = [];
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("comes back when it breaks, later each time, and not after its end", () => {
    const struck = vi.fn();
    const line = new HourLine("ws://x/live/hours/1", struck);
    Socket.made[0]?.onopen?.();
    expect(line.store.getState().connected).toBe(true);
    Socket.made[0]?.close();
    expect(line.store.getState().connected).toBe(false);
    vi.advanceTimersByTime(600);
    Socket.made[1]?.close(); // it never opened
    vi.advanceTimersByTime(600);
    expect(Socket.made).toHaveLength(2);
    vi.advanceTimersByTime(500);
    expect(Socket.made).toHaveLength(3);
    Socket.made[2]?.onopen?.();
    expect(struck).toHaveBeenCalledTimes(2); // what was told meanwhile is asked for
    line.end();
    vi.advanceTimersByTime(60_000);
    expect(Socket.made).toHaveLength(3);
  });

  it("forgets how somebody stood once nothing more is heard of it", () => {
    const line = new HourLine("ws://x", () => {});
    const tile = { kind: "tile", lead_share: 0.6, lead: [0.4, 0.5], trail: null };
    Socket.made[0]?.onopen?.();
    Socket.made[0]?.onmessage?.({ data: JSON.stringify(tile) });
    vi.advanceTimersByTime(1900);
    expect(line.store.getState().tile?.lead_share).toBe(0.6);
    vi.advanceTimersByTime(200);
    expect(line.store.getState().tile).toBeNull();
    line.end();
  });

  it("puts a device that comes again in the place of the one that went, and no other", () => {
    const gone = [device("a", false), device("b", true, "Other")];
    expect(withDevice(gone, device("c")).map(({ id }) => id)).toEqual(["c", "b"]);
    expect(withDevice([device("a")], device("c")).map(({ id }) => id)).toEqual(["a", "c"]);
    expect(withDevice(gone, device("b", false, "Other"))[1]?.there).toBe(false);
  });

  it("listens where its page is from", () => {
    const at = (protocol: string) => ({ protocol, host: "range.example" }) as Location;
    expect(lineAddress("7", at("https:"))).toBe("wss://range.example/live/hours/7");
    expect(lineAddress("7", at("http:"))).toBe("ws://range.example/live/hours/7");
  });
});
