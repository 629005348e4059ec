import { type KeybindingPress, matchKeybindingPress, parseKeybinding } from "tinykeys";
import { STATION_WORDS, type Station } from "../stations/stations";
import { COMMAND_IDS, type CommandId, commandOf } from "./table";

/** A key that was pressed, as a command's: which place of the command's list, and whether it can be done here. */
export interface Meant {
  id: CommandId;
  place: number;
  here: boolean;
}

interface Chord {
  id: CommandId;
  place: number;
  press: KeybindingPress;
}

const CHORDS: Chord[] = COMMAND_IDS.flatMap((id) => {
  const { keys, places = 1 } = commandOf(id);
  return keys.map((key, i) => {
    const [press] = parseKeybinding(key);
    if (!press) throw new Error(`${id}: ${key} names no key`);
    return { id, place: i % places, press };
  });
});

const CONTROL = ["Control", "Meta"];

/** The command that a key stands for: what can be done at a station before what is done at another. */
export function meant(event: KeyboardEvent, station: Station): Meant | null {
  // The browser's own: Ctrl and minus makes the page smaller. AltGr is no Ctrl, whatever the system calls it.
  const control = (event.ctrlKey || event.metaKey) && !event.getModifierState("AltGraph");
  const found = CHORDS.filter(
    ({ press }) =>
      matchKeybindingPress(event, press) && (!control || press[0].some((each) => CONTROL.includes(each))),
  ).map(({ id, place }) => ({ id, place, here: commandOf(id).at?.includes(station) ?? true }));
  return found.find((each) => each.here) ?? found[0] ?? null;
}

/** Why a command cannot be done at a station that is not its own. */
export function elsewhere(id: CommandId): string {
  const { at = [], words, shown } = commandOf(id);
  const where = at.map((station) => `${STATION_WORDS[station]} (${STATION_WORDS[station][0]})`);
  return `${shown} is “${words}”: that is done at ${where.join(" or ")}.`;
}
