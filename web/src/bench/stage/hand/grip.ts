import type { Point } from "../../../drawn/stageView";
import { chalkIn, KNOWN_LENGTH, MAT, PLAYER, PLUMB } from "../../benchState";
import { chalking } from "./chalk";
import { clicking, turning } from "./corner";
import { meantBy, nearestOf } from "./hit";
import { drawing } from "./line";
import { holding, putting } from "./mark";
import { panning } from "./pan";
import type { Grip, Scene } from "./scene";

/** What a press on a stage begins: by the tool in hand, else by what lies under it. */
export function grip(scene: Scene, at: Point): Grip {
  const { tool, selected, spots, corners } = scene;
  if (tool === PLAYER) return { deeds: [{ do: "show player", place: scene.toPicture(at) }], hand: null };
  const draws = chalkIn(tool);
  if (draws) return chalking(scene, at, draws);
  if (tool === MAT) return clicking(scene, at);
  if (tool === KNOWN_LENGTH || tool === PLUMB) return drawing(scene, at);
  if (tool) return putting(scene, at, tool);
  const [meant, ...rivals] = meantBy(spots, at, selected);
  if (meant && rivals.length > 0)
    return { deeds: [{ do: "fan", at, names: [meant, ...rivals].map(({ name }) => name) }], hand: null };
  if (meant) return holding(scene, at, meant);
  const corner = nearestOf(corners, at);
  return corner === null ? panning(at) : turning(scene, corner);
}
