import { createStore, type StoreApi } from "zustand/vanilla";

/** A place in a shoe: heel 0 to toe 1, inner edge 0 to outer edge 1. */
export type Place = [number, number];

export interface Tile {
  kind: "tile";
  lead_share: number | null; // null: nobody stands on the plate
  lead: Place | null;
  trail: Place | null;
}

export interface Device {
  kind: "device";
  id: string;
  device: string;
  name: string;
  there: boolean;
  counts: { taken: number; doubled: number; late: number; lost: number; nonsense: number; jumps: number };
  clock_u95_s: number | null;
}

export type Told = Tile | Device | { kind: "strike" };

export interface Line {
  connected: boolean;
  tile: Tile | null;
  devices: Device[];
}

const AGAIN_MS = [500, 1000, 2000, 4000, 8000];
const STALE_MS = 2000; // a tile that is older tells nothing of now

/** Listens to what an hour's devices tell, and comes back to the line when it breaks. */
export class HourLine {
  readonly store: StoreApi<Line> = createStore<Line>(() => ({ connected: false, tile: null, devices: [] }));
  private socket: WebSocket | null = null;
  private tries = 0;
  private again: number | undefined;
  private stale: number | undefined;

  constructor(
    private readonly address: string,
    private readonly struck: () => void,
  ) {
    this.connect();
  }

  end(): void {
    window.clearTimeout(this.again);
    window.clearTimeout(this.stale);
    const { socket } = this;
    this.socket = null;
    socket?.close();
  }

  private connect(): void {
    const socket = new WebSocket(this.address);
    this.socket = socket;
    socket.onopen = () => {
      this.tries = 0;
      // A device that went meanwhile is not told of: those that are there tell of themselves.
      this.store.setState({ connected: true, devices: [] });
      this.struck(); // what was told while the line was broken
    };
    socket.onmessage = ({ data }) => this.hear(JSON.parse(data) as Told);
    socket.onclose = () => {
      if (this.socket !== socket) return;
      this.store.setState({ connected: false, tile: null });
      const wait = AGAIN_MS[Math.min(this.tries, AGAIN_MS.length - 1)];
      this.tries += 1;
      this.again = window.setTimeout(() => this.connect(), wait);
    };
  }

  private hear(told: Told): void {
    if (told.kind === "strike") this.struck();
    else if (told.kind === "device")
      this.store.setState(({ devices }) => ({ devices: withDevice(devices, told) }));
    else {
      this.store.setState({ tile: told });
      window.clearTimeout(this.stale);
      this.stale = window.setTimeout(() => this.store.setState({ tile: null }), STALE_MS);
    }
  }
}

/** A device in its place; one that comes again under its name takes the place of the one that went. */
export function withDevice(devices: Device[], told: Device): Device[] {
  const same = (each: Device) =>
    each.id === told.id || (!each.there && each.device === told.device && each.name === told.name);
  const place = devices.findIndex(same);
  return place < 0 ? [...devices, told] : devices.map((each, i) => (i === place ? told : each));
}

/** Where an hour's page listens, by where the page itself is from. */
export const lineAddress = (id: string, from: Location) =>
  `${from.protocol === "https:" ? "wss" : "ws"}://${from.host}/live/hours/${id}`;
