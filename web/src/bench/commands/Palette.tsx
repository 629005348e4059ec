import { Finder } from "../../shell/Finder";
import { STATION_WORDS, type Station } from "../stations/stations";
import { COMMAND_IDS, type CommandId, commandOf } from "./table";

interface Props {
  station: Station;
  choose: (id: CommandId) => void;
  close: () => void;
}

const CHOICES = COMMAND_IDS.map((id) => ({ id, ...commandOf(id) })).filter(
  (each) => !each.held && each.places === undefined && each.id !== "palette",
);

/** Finds what the bench can do by any part of its words, and does it; or another student. */
export function Palette({ station, choose, close }: Props) {
  const choices = CHOICES.map(({ id, words, shown, at }) => ({
    id,
    words,
    shown,
    note: at && !at.includes(station) ? `at ${at.map((each) => STATION_WORDS[each]).join(", ")}` : undefined,
    run: () => choose(id),
  }));
  return <Finder choices={choices} close={close} />;
}
