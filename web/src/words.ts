import type { Schemas } from "./api/client";

export type PegName = Schemas["PegOut"]["name"];
export type Checkpoint = Schemas["ShapeOut"]["at"];
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

/** The nine checkpoints in the order of the swing, with a short name for a narrow place. */
export const CHECKPOINTS: [Checkpoint, string][] = [
  ["address", "Address"],
  ["shaft_back", "Shaft back"],
  ["arm_back", "Arm back"],
  ["top", "Top"],
  ["arm_down", "Arm down"],
  ["shaft_down", "Shaft down"],
  ["impact", "Impact"],
  ["shaft_through", "Through"],
  ["finish", "Finish"],
];

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

export const VIEW_WORDS = {
  face_on: "Face-on",
  from_behind: "Back-on",
  down_the_line: "Down the line",
  up_the_line: "Up the line",
} as const;
export type View = keyof typeof VIEW_WORDS;
export const VIEWS = Object.keys(VIEW_WORDS) as View[];

export type ClubClass = NonNullable<Schemas["SwingKind"]["club_class"]>;
export type SwingLength = NonNullable<Schemas["SwingKind"]["swing_length"]>;

export const CLUB_CLASS_WORDS: Record<ClubClass, string> = {
  driver: "Driver",
  wood: "Wood or hybrid",
  iron: "Iron",
  wedge: "Wedge",
};

export const SWING_LENGTH_WORDS: Record<SwingLength, string> = {
  full: "Full swing",
  shoulder_high: "Hands shoulder high",
  lead_arm_level: "Lead arm level",
  pitch: "Pitch",
};

/** A swing's club and, where it was said, its length: "7 iron · full swing". */
export function kindWords(swing: { club: string; swing_length: SwingLength | null }): string {
  const long = swing.swing_length && SWING_LENGTH_WORDS[swing.swing_length].toLowerCase();
  return [swing.club || "Club not named", long].filter(Boolean).join(" · ");
}

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

const BESIDE = ["ball", "club_head", "grip", "grip_butt"];

/** Whether a mark is on the player, not on what they hold or hit. */
export const isBody = (mark: string) => !BESIDE.includes(mark);

export const READING_WORDS: Record<string, string> = {
  stance_width: "Stance, heel to heel",
  stance_ratio: "Stance to shoulders",
  ball_position: "Ball between the heels",
  toe_line: "Toe line",
  foot_flare_lead: "Lead foot flare",
  foot_flare_trail: "Trail foot flare",
  foot_twist_lead: "Lead foot twist",
  heel_lift_lead: "Lead heel lift",
  heel_lift_trail: "Trail heel lift",
  toe_lift_lead: "Lead toe lift",
  foot_roll_lead: "Lead shoe roll",
  foot_roll_trail: "Trail shoe roll",
  heel_return_lead: "Lead heel down again",
  heel_off_trail: "Trail heel off",
  knee_flex_lead: "Lead knee flex",
  knee_flex_trail: "Trail knee flex",
  knee_flex_change_trail: "Trail knee flex, change",
  knee_height_difference: "Kneecap level",
  lead_knee_travel_t: "Lead knee along the line",
  lead_knee_travel_b: "Lead knee toward the ball",
  lead_knee_behind_ball: "Lead knee from the ball",
  lead_leg_lean: "Lead leg lean",
  lead_leg_knee_offset: "Lead knee off its leg's line",
  trail_knee_inside: "Trail knee off its leg's line",
  knee_gap: "Between the knees",
  knee_points_lead: "Lead knee points",
  knee_points_trail: "Trail knee points",
  lead_knee_rate: "Lead knee forward, speed",
  lead_knee_straight_time: "Lead knee straight",
  pelvis_offset: "Pelvis over the stance",
  pelvis_sway: "Pelvis sway",
  pelvis_forward_rate: "Pelvis forward, speed",
  pelvis_push: "Pelvis push-back",
  pelvis_rise: "Pelvis rise",
  pelvis_depth: "Pelvis depth",
  pelvis_turn: "Pelvis turn",
  pelvis_slant: "Pelvis slant",
  trail_hip_gap: "Trail hip gap",
  trail_hip_gap_share: "Gap left of address",
  trail_hip_push: "Trail hip push-back",
  post_gap: "Gap to the post",
  post_time: "On the post",
  hip_travel: "Hip travel behind the line",
  hip_travel_clock: "Hip travel on the clock",
  going_back: "Way of going back",
  sternum_offset: "Breastbone over the stance",
  spine_incline: "Spine incline",
  spine_side_tilt: "Spine side tilt",
  shoulder_turn: "Shoulder turn",
  shoulder_slant: "Shoulder slant",
  neck_incline: "Neck against the spine",
  head_travel_t: "Head along the line",
  head_travel_u: "Head up and down",
  grip_plumb: "Grip plumb",
  lead_arm_raise: "Lead arm raise",
  arm_shaft_angle: "Arm and shaft",
  club_inside: "Club head from the hands",
  shaft_across: "Shaft across the line",
  shaft_pitch: "Shaft pitch",
  shaft_lean: "Shaft lean",
  trail_elbow_flex: "Trail elbow flex",
  tempo: "Tempo, back to down",
  start_times: "Starts forward",
  pressure_lead_share: "Pressure on the lead foot",
  cop_lead_toe: "Lead pressure, heel to toe",
  cop_lead_outer: "Lead pressure, inner to outer",
  cop_trail_toe: "Trail pressure, heel to toe",
  cop_trail_outer: "Trail pressure, inner to outer",
  pressure_peak_trail: "Most pressure on the trail foot",
  pressure_peak_trail_time: "Most pressure on the trail foot",
  pressure_cross_time: "Pressure crosses to the lead foot",
};

/** What a gauge, or the reading it draws, is called: short, it stands beside the player. */
export const SHORT_WORDS: Record<string, string> = {
  trail_hip_gap: "gap",
  lead_hip_gate: "lead hip",
  trail_hip_gate: "trail hip",
  post_gap: "to the post",
  pelvis_depth: "off the wall",
  pelvis_slant: "slant",
  spine_incline: "incline",
  spine_side_tilt: "tilt",
  knee_height_difference: "trail higher",
  lead_leg_lean: "lean",
  knee_flex_lead: "flex",
  knee_flex_trail: "flex",
  foot_flare_lead: "flare",
  foot_flare_trail: "flare",
  foot_roll_lead: "roll",
  foot_roll_trail: "roll",
  heel_lift_lead: "lift",
  heel_lift_trail: "lift",
  stance_width: "stance",
  toe_line: "toe line",
  grip_plumb: "plumb",
  pelvis_sway: "sway",
  pelvis_push: "push",
  knee_gap: "knee to knee",
  knee_points_lead: "points",
  knee_points_trail: "points",
  trail_knee_inside: "inside",
  trail_elbow_flex: "flex",
  neck_incline: "neck",
  shoulder_slant: "slant",
  shaft_lean: "lean",
  club_inside: "inside",
  shaft_across: "across",
  shaft_pitch: "pitch",
};

/** Readings whose value goes both ways from nothing, so that its sign is always shown. */
export const SIGNED: ReadonlySet<string> = new Set([
  "pelvis_sway",
  "hip_moved",
  "pelvis_push",
  "pelvis_forward_rate",
  "lead_knee_rate",
  "hip_travel",
  "shoulder_slant",
  "neck_incline",
  "club_inside",
  "shaft_across",
  "shaft_lean",
  "trail_knee_inside",
  "knee_points_lead",
  "knee_points_trail",
  "pelvis_rise",
  "pelvis_depth",
  "pelvis_turn",
  "pelvis_slant",
  "pelvis_offset",
  "trail_hip_push",
  "sternum_offset",
  "spine_side_tilt",
  "shoulder_turn",
  "head_travel_t",
  "head_travel_u",
  "foot_twist_lead",
  "foot_roll_lead",
  "foot_roll_trail",
  "toe_line",
  "knee_flex_change_trail",
  "post_time",
  "knee_height_difference",
  "lead_knee_travel_t",
  "lead_knee_travel_b",
  "lead_knee_behind_ball",
  "start_times",
  "lead_leg_lean",
  "lead_leg_knee_offset",
  "lead_knee_straight_time",
  "heel_return_lead",
  "heel_off_trail",
  "pressure_peak_trail_time",
  "pressure_cross_time",
]);

/** What a reading without a checkpoint is of. */
export const PART_WORDS: Record<string, string> = {
  swing: "Whole swing",
  extreme_back: "Farthest back",
  lead_knee: "Lead knee",
  pelvis_shift: "Pelvis shift",
  pelvis_turn: "Pelvis turn",
  chest: "Chest",
  lead_arm: "Lead arm",
  club: "Club",
};

/** What a reading found, where it is no number. */
export const SAID_WORDS: Record<string, string> = {
  loaded: "Loaded",
  pure_sway: "Pure sway",
  empty_turn: "Empty turn",
  centred: "Centred",
};

export const GROUP_TITLES: Record<Schemas["ReadingKind"]["group"], string> = {
  feet: "Feet",
  knees: "Knees",
  pelvis: "Pelvis",
  trunk: "Trunk",
  club: "Arms and club",
  sequence: "Sequence",
  pressure: "Pressure",
};

export function momentWords(at: string): string {
  return CHECKPOINT_WORDS[at as Checkpoint] ?? PART_WORDS[at] ?? at;
}

/** Where a value lies, in the trade's words: beside the number so that no sign needs remembering. */
export function direction(reading: string, value: number, sign: string): string {
  if (reading === "pelvis_sway") return value < 0 ? "away from target" : "toward target";
  if (reading === "trail_hip_gap") return value < 0 ? "outside the foot" : "inside the foot";
  if (reading === "trail_hip_gap_share") return value < 0 ? "past the plumb" : "left";
  return sign;
}

export function mirrored(hand: Hand): "left" | "right" {
  return hand === "right" ? "left" : "right";
}

/** The student's own words: "left (front)" for a right-hander's lead side. */
export function ownSide(side: "lead" | "trail", hand: Hand): string {
  const lead = mirrored(hand);
  return side === "lead" ? `${lead} (front)` : `${lead === "left" ? "right" : "left"} (back)`;
}

/** A short text with left and right, by a player's hand, where the trade says lead and trail. */
export function sidesOf(text: string, hand: Hand): string {
  const lead = mirrored(hand);
  return text.replace(/\blead\b/g, lead).replace(/\btrail\b/g, lead === "left" ? "right" : "left");
}

export const GAUGE_WORDS: Record<string, string> = {
  trail_plumb: "Trail plumb",
  trail_hip_gate: "Trail hip gate",
  lead_hip_gate: "Lead hip gate",
  post_mark: "Post mark",
  seat_wall: "Seat wall",
  hips_push: "Push of the hips",
  hips_sway: "Sway of the hips",
  belt_line: "Belt line",
  spine_line: "Spine line",
  shoulder_line: "Shoulder line",
  neck_line: "Neck",
  kneecap_level: "Kneecap level",
  knee_gap: "Knee gap",
  lead_leg: "Lead leg",
  trail_leg: "Trail leg",
  lead_thigh: "Lead thigh",
  trail_thigh: "Trail thigh",
  lead_knee_hinge: "Lead knee hinge",
  trail_knee_hinge: "Trail knee hinge",
  toe_line: "Toe line",
  lead_foot_fan: "Lead foot fan",
  trail_foot_fan: "Trail foot fan",
  lead_foot_roll: "Lead shoe roll",
  trail_foot_roll: "Trail shoe roll",
  lead_heel_lift: "Lead heel lift",
  trail_heel_lift: "Trail heel lift",
  stance_tape: "Stance tape",
  grip_plumb: "Grip plumb",
  trail_arm: "Trail arm",
  shaft_line: "Shaft",
};

export function gaugeForStudent(id: string, hand: Hand): string {
  if (id === "trail_plumb") return `Upright over your ${ownSide("trail", hand)} foot`;
  if (id === "post_mark") return "Where your front hip should arrive";
  if (id === "seat_wall") return "The wall behind your seat";
  const side = id.startsWith("lead") ? "lead" : "trail";
  if (id.endsWith("hip_gate")) return `Where your ${ownSide(side, hand)} hip started`;
  return GAUGE_WORDS[id]?.replace(/^Lead|^Trail/, `Your ${ownSide(side, hand)}`) ?? "A line of this lesson";
}

/** A reading as a sentence a student can use. */
export function forStudent(reading: string, amount: string, value: number, hand: Hand): string {
  if (reading === "pelvis_sway")
    return `Your hips have moved ${amount} ${value < 0 ? "away from" : "toward"} the target since the start.`;
  if (reading === "trail_hip_gap")
    return value < 0
      ? `Your ${ownSide("trail", hand)} hip is ${amount} outside your shoe.`
      : `Your ${ownSide("trail", hand)} hip is ${amount} inside your shoe.`;
  if (reading === "trail_hip_gap_share")
    return value < 0
      ? "None of the room you had at the start is left."
      : `${amount} of the room you had at the start is left.`;
  const words = (READING_WORDS[reading] ?? reading).replace(/lead|trail/i, (side) =>
    ownSide(side.toLowerCase() as "lead" | "trail", hand),
  );
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}: ${value < 0 ? "−" : ""}${amount}.`;
}
