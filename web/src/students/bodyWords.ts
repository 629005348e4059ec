import type { Schemas } from "../api/client";
import { type Hand, mirrored } from "../words";

export type Body = Required<Schemas["Body"]>;
export const NOTHING_KNOWN: Body = { aches: [], motions: [], misses: [], good_clubs: [], bad_clubs: [] };
export type Ache = Body["aches"][number];
export type Motion = Body["motions"][number];
export type Miss = Body["misses"][number];
export type BodyPart = Exclude<NonNullable<Ache["part"]>, "">;
export type Trouble = Ache["trouble"];

export const PARTS: BodyPart[] = [
  "neck",
  "low_back",
  "trunk",
  "lead_hip",
  "trail_hip",
  "lead_knee",
  "trail_knee",
  "lead_ankle",
  "trail_ankle",
  "lead_shoulder",
  "trail_shoulder",
  "lead_wrist",
  "trail_wrist",
];

export const MISS_WORDS: Record<Miss, string> = {
  heavy: "heavy",
  thin: "thin",
  topped: "topped",
  slice: "slice",
  hook: "hook",
  push: "push",
  pull: "pull",
  shank: "shank",
  high: "too high",
  low: "too low",
  short: "too short",
  two_way: "both ways",
};
export const MISSES = Object.keys(MISS_WORDS) as Miss[];

export const TROUBLE_WORDS: Record<Trouble, string> = {
  pain: "hurts",
  stiff: "is stiff",
  injury: "recent injury",
  operation: "recent operation",
  replaced: "replaced joint",
  dizziness: "dizziness",
};
export const TROUBLES = Object.keys(TROUBLE_WORDS) as Trouble[];

export const CLUB_WORDS = { wedge: "wedges", iron: "irons", wood: "woods", driver: "driver" } as const;
export const CLUBS = Object.keys(CLUB_WORDS) as (keyof typeof CLUB_WORDS)[];

/** A part of the body by the player's own left and right: "left hip". */
export function partWords(part: BodyPart | "", hand: Hand): string {
  if (part === "") return "all of them";
  const lead = mirrored(hand);
  return part
    .replace("lead_", `${lead} `)
    .replace("trail_", `${lead === "left" ? "right" : "left"} `)
    .replace("_", " ");
}

/** What of a body is to be kept in mind, in a line: "left hip (replaced joint), low back (hurts)". */
export function achesInWords(aches: Ache[], hand: Hand): string {
  return aches
    .map(({ part = "", trouble, agreed_by }) => {
      const words =
        trouble === "dizziness" ? "dizziness" : `${partWords(part, hand)} (${TROUBLE_WORDS[trouble]})`;
      return agreed_by ? `${words}, ${agreed_by} agreed` : words;
    })
    .join(", ");
}
