import { CLUB_CLASS_WORDS, type ClubClass, type Hand } from "../words";
import type { List } from "./useList";

const HANDS = ["right", "left"] as const;

/** Choices of a list by the student's hand and the class of club. */
export const BY_HAND = {
  name: "hand",
  label: "Hand",
  options: [["", "Either hand"], ...HANDS.map((hand) => [hand, `${hand}-handed`])] as [string, string][],
};
export const BY_CLUB = {
  name: "club",
  label: "Club",
  options: [["", "Any club"], ...Object.entries(CLUB_CLASS_WORDS)] as [string, string][],
};

/** What of a list's address asks for a hand, a club and days; nothing of what is not known. */
export function kindAsked({ said }: List["wanted"]): {
  hand?: Hand;
  club_class?: ClubClass;
  since?: string;
  until?: string;
} {
  const hand = HANDS.find((each) => each === said("hand"));
  const club = said("club");
  const day = (name: string) => (/^\d{4}-\d{2}-\d{2}$/.test(said(name)) ? said(name) : undefined);
  const [since, until] = [day("since"), day("until")];
  return {
    ...(hand && { hand }),
    ...(club in CLUB_CLASS_WORDS && { club_class: club as ClubClass }),
    ...(since && { since }),
    ...(until && { until }),
  };
}
