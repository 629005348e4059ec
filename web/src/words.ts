import type { Schemas } from "./api/client";

export type PegName = Schemas["PegOut"]["name"];
export type Checkpoint = Schemas["ReadingOut"]["at"];
export type SwingEvent = Exclude<PegName, Checkpoint>;
export type Hand = "right" | "left";

export const CHECKPOINT_WORDS: Record<Checkpoint, string> = {
  address: "Address",
  shaft_back: "Shaft level back",
  arm_back: "Lead arm level back",
  top: "Top",
  arm_down: "Lead arm level down",
  shaft_down: "Shaft level down",
  impact: "Impact",
  shaft_through: "Shaft level through",
  finish: "Finish",
};

/** What has a time of its own beside the checkpoints, in the order a swing has them. */
export const EVENT_WORDS: Record<SwingEvent, string> = {
  first_move: "First move",
  lead_heel_up: "Lead heel up",
  lead_heel_down: "Lead heel down",
  lead_knee_start: "Lead knee starts forward",
  pelvis_shift_start: "Pelvis starts to shift",
  pelvis_turn_start: "Pelvis starts to turn",
  chest_start: "Chest starts",
  lead_arm_start: "Lead arm starts",
  club_start: "Club starts down",
  trail_heel_off: "Trail heel off",
  post_reached: "Lead hip on the post",
  lead_knee_straight: "Lead knee straight",
  lead_toe_up: "Lead toe up",
};

export const PEG_WORDS: Record<PegName, string> = { ...CHECKPOINT_WORDS, ...EVENT_WORDS };

export function isCheckpoint(name: PegName): name is Checkpoint {
  return name in CHECKPOINT_WORDS;
}

export const VIEW_WORDS = { face_on: "Face-on", down_the_line: "Down the line" } as const;

const PAIRED_WORDS: Record<string, string> = {
  hip: "hip joint",
  hip_edge: "hip, outer edge",
  knee: "knee",
  ankle: "ankle",
  heel: "heel",
  toe: "toe",
  foot_outer: "foot, outer edge",
  foot_inner: "foot, inner edge",
  shoulder: "shoulder",
  elbow: "elbow",
  wrist: "wrist",
};

export const MARK_WORDS: Record<string, string> = {
  ...Object.fromEntries(
    Object.entries(PAIRED_WORDS).flatMap(([name, words]) => [
      [`lead_${name}`, `Lead ${words}`],
      [`trail_${name}`, `Trail ${words}`],
    ]),
  ),
  neck: "Base of the neck",
  sternum: "Breastbone",
  head: "Head",
  seat: "Seat",
  grip: "Grip",
  grip_butt: "Butt of the grip",
  club_head: "Club head",
  ball: "Ball",
};

export const READING_WORDS: Record<string, string> = {
  pelvis_sway: "Pelvis sway",
  trail_hip_gap: "Trail hip gap",
  trail_hip_gap_share: "Gap left of address",
};

/** Where a value lies, in the trade's words: beside the number so that no sign needs remembering. */
export function direction(reading: string, value: number): string {
  if (reading === "pelvis_sway") return value < 0 ? "away from target" : "toward target";
  if (reading === "trail_hip_gap") return value < 0 ? "outside the foot" : "inside the foot";
  return value < 0 ? "past the plumb" : "left";
}

export function mirrored(hand: Hand): "left" | "right" {
  return hand === "right" ? "left" : "right";
}

/** The student's own words: "left (front)" for a right-hander's lead side. */
export function ownSide(side: "lead" | "trail", hand: Hand): string {
  const lead = mirrored(hand);
  return side === "lead" ? `${lead} (front)` : `${lead === "left" ? "right" : "left"} (back)`;
}

/** Put the student's own sides into a text of the drill book. */
export function forHand(text: string, hand: Hand): string {
  return text.replaceAll("{lead}", ownSide("lead", hand)).replaceAll("{trail}", ownSide("trail", hand));
}

export function gaugeForStudent(id: string, hand: Hand): string {
  if (id === "trail_plumb") return `Upright over your ${ownSide("trail", hand)} foot`;
  return `Where your ${ownSide(id.startsWith("lead") ? "lead" : "trail", hand)} hip started`;
}

/** A reading as a sentence a student can use. */
export function forStudent(reading: string, amount: string, value: number, hand: Hand): string {
  if (reading === "pelvis_sway")
    return `Your hips have moved ${amount} ${value < 0 ? "away from" : "toward"} the target since the start.`;
  if (reading === "trail_hip_gap")
    return value < 0
      ? `Your ${ownSide("trail", hand)} hip is ${amount} outside your shoe.`
      : `Your ${ownSide("trail", hand)} hip is ${amount} inside your shoe.`;
  return value < 0
    ? "None of the room you had at the start is left."
    : `${amount} of the room you had at the start is left.`;
}
