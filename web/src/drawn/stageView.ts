/** How a picture lies on its stage: scale in CSS px per picture px, and the picture point in the middle. */
export interface View {
  scale: number;
  cx: number;
  cy: number;
  mirrored: boolean;
}

export interface Size {
  width: number;
  height: number;
}

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export interface Point {
  x: number;
  y: number;
}

const MAX_SCALE = 40;

/** The whole picture on the stage. */
export function wholePicture(picture: Size, stage: Size, mirrored: boolean): View {
  const scale = Math.min(stage.width / picture.width, stage.height / picture.height);
  return { scale, cx: picture.width / 2, cy: picture.height / 2, mirrored };
}

/** The picture's full height, cut at the sides to the player, who stands about `middle`. */
export function aboutPlayer(picture: Size, stage: Size, middle: number, mirrored: boolean): View {
  const scale = stage.height / picture.height;
  return held({ scale, cx: middle, cy: picture.height / 2, mirrored }, picture, stage);
}

/** A stretch of the picture, as large on the stage as it goes. */
export function aboutBox(picture: Size, stage: Size, box: Box, mirrored: boolean): View {
  const scale = Math.min(stage.width / (box.right - box.left), stage.height / (box.bottom - box.top));
  const middle = { cx: (box.left + box.right) / 2, cy: (box.top + box.bottom) / 2 };
  return held({ scale, ...middle, mirrored }, picture, stage);
}

/**
 * How a stage is looked at beside its crop to the player: so many times as large, and shifted, in
 * heights of the crop, to the right as a player of the same hand is seen. Two stages looked at alike
 * show the same part of both players.
 */
export type Look = "whole" | { factor: number; x: number; y: number };

export function lookOf(view: View, home: View, stage: Size): Look {
  const height = stage.height / home.scale;
  const side = view.mirrored ? -1 : 1;
  return {
    factor: view.scale / home.scale,
    x: (side * (view.cx - home.cx)) / height,
    y: (view.cy - home.cy) / height,
  };
}

export function viewOf(look: Look | null, home: View, picture: Size, stage: Size): View {
  if (look === null) return home;
  if (look === "whole") return wholePicture(picture, stage, home.mirrored);
  const height = stage.height / home.scale;
  const side = home.mirrored ? -1 : 1;
  const moved = { ...home, cx: home.cx + side * look.x * height, cy: home.cy + look.y * height };
  return zoomed(moved, look.factor, { x: stage.width / 2, y: stage.height / 2 }, picture, stage);
}

/** Between two views; the scale by equal ratios, as the eye takes it. */
export function between(a: View, b: View, share: number): View {
  const mix = (p: number, q: number) => p + (q - p) * share;
  return { ...b, scale: a.scale * (b.scale / a.scale) ** share, cx: mix(a.cx, b.cx), cy: mix(a.cy, b.cy) };
}

export function sameView(a: View | null, b: View | null): boolean {
  if (a === null || b === null) return a === b;
  return a.scale === b.scale && a.cx === b.cx && a.cy === b.cy && a.mirrored === b.mirrored;
}

/** Keep the picture's edge from being dragged into the stage. */
export function held(view: View, picture: Size, stage: Size): View {
  const clamp = (value: number, half: number, full: number) =>
    half * 2 >= full ? full / 2 : Math.min(Math.max(value, half), full - half);
  return {
    ...view,
    cx: clamp(view.cx, stage.width / 2 / view.scale, picture.width),
    cy: clamp(view.cy, stage.height / 2 / view.scale, picture.height),
  };
}

export function toStage(point: Point, view: View, stage: Size): Point {
  const side = view.mirrored ? -1 : 1;
  return {
    x: stage.width / 2 + side * (point.x - view.cx) * view.scale,
    y: stage.height / 2 + (point.y - view.cy) * view.scale,
  };
}

export function toPicture(point: Point, view: View, stage: Size): Point {
  const side = view.mirrored ? -1 : 1;
  return {
    x: view.cx + (side * (point.x - stage.width / 2)) / view.scale,
    y: view.cy + (point.y - stage.height / 2) / view.scale,
  };
}

/** Zoom by a factor about a point of the stage. */
export function zoomed(view: View, factor: number, at: Point, picture: Size, stage: Size): View {
  const least = Math.min(stage.width / picture.width, stage.height / picture.height);
  const scale = Math.min(Math.max(view.scale * factor, least), MAX_SCALE);
  const under = toPicture(at, view, stage);
  const moved = { ...view, scale };
  const now = toPicture(at, moved, stage);
  return held({ ...moved, cx: moved.cx + under.x - now.x, cy: moved.cy + under.y - now.y }, picture, stage);
}
