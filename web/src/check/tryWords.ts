import type { Schemas } from "../api/client";
import { shown, signBehind, type Unit, type Units, withSign } from "../units";
import { type Hand, sidesOf, type View } from "../words";

export type Try = Schemas["TryOut"];
type Answer = Schemas["TryAnswer"];

/** What a machine made of a filmed drill, in a student's words: the verdict, and what there is to say of it. */
export function tryWords(answer: Answer, view: View | null, units: Units, hand: Hand): [string, string] {
  const { beyond, give_or_take: reach, unit } = answer;
  if (answer.answer === "not_read") return ["Cannot be told", change(answer, view)];
  if (beyond === null || reach === null || unit === "") return ["Cannot be told", CHANGE.refused];
  const about = (value: number) => roughly(value, reach, unit, units);
  const by = about(Math.abs(beyond));
  const error = about(reach);
  const holds = sidesOf(answer.holds, hand);
  if (answer.answer === "inside") return ["Inside", `${holds} By about ${by}, give or take ${error}.`];
  if (answer.answer === "outside")
    return ["Not yet", `Past the limit by about ${by}, give or take ${error}.`];
  return [
    "Cannot be told",
    `It is too near the limit for a phone: what it measures is good to ${error} only. Film it again another day.`,
  ];
}

/** No finer than its error: whole centimetres where that is some of them. */
function roughly(value: number, reach: number, unit: Unit, units: Units): string {
  const length = shown(value, unit, units);
  if (shown(reach, unit, units) < COARSE) return withSign(value, unit, units);
  return `${Math.round(length)}${signBehind(unit, units)}`;
}

const COARSE = 2;

/** From where a drill is filmed, in a student's words. */
export const FROM_WORDS: Record<View, string> = {
  face_on: "from the front",
  down_the_line: "along the line, from behind you",
  from_behind: "facing your back",
  up_the_line: "from the target's side",
};

function change({ why }: Answer, view: View | null): string {
  if (why !== "other_view") return CHANGE[why || "refused"];
  const from = view ? FROM_WORDS[view] : "the side that the drill says";
  return `It was filmed from another side. Film this drill ${from}.`;
}

const CHANGE = {
  no_swing:
    "No swing was seen. Stand 4 to 5 big steps from the phone, all of you in the picture, and swing once.",
  slowed:
    "It looks like slow motion. Say beside the clip at which rate it was shot, or film at the usual pace.",
  mirrored: "The picture seems to be mirrored. Film with the phone's other camera.",
  cut_off:
    "Your feet are not in the picture. Put the phone farther back, belt high, both feet in the picture.",
  refused:
    "The machine did not see you well enough. More light, both feet in the picture, nobody else in it.",
};

/** What an instructor who has looked says of it; empty while nobody has. */
export function saidWords(said: Answer["said"], by: string): string {
  if (said === "") return "";
  return said === "inside" ? `${by} has looked: inside.` : `${by} has looked: not yet.`;
}
