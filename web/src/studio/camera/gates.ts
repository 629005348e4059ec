import type { Schemas } from "../../api/client";
import type { Try } from "../ladderWords";

/** Where the hips, or the seat, stood at address: shares of the picture's width; of this try, or of one before. */
export interface Gates {
  at: number[];
  own: boolean;
}

/** The gates of a try by its clip's name; until a machine has seen them, those of the latest try that has some. */
export function gatesOf(tries: Try[], view: Schemas["FilmOut"]["view"], name: string): Gates | null {
  const films = tries.flatMap((each) => each.films).filter((film) => film.view === view);
  const known = films.filter(({ gates }) => gates.length > 0);
  const own = known.find((film) => film.name.startsWith(`${name}.`));
  const film = own ?? known.at(-1);
  return film ? { at: film.gates, own: own !== undefined } : null;
}
