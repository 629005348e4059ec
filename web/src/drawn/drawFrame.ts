import type { Size, View } from "./stageView";

const SHARP_FROM = 3; // CSS px a picture px: from here on single pixels are meant to be seen

/** Puts a frame on a canvas as a view shows it on a stage of a size. */
export function drawFrame(
  target: HTMLCanvasElement,
  image: CanvasImageSource,
  { width, height }: Size,
  view: View,
  stage: Size,
): void {
  const context = target.getContext("2d");
  if (!context) return;
  const dense = window.devicePixelRatio || 1;
  const across = Math.round(stage.width * dense);
  const down = Math.round(stage.height * dense);
  if (target.width !== across || target.height !== down) {
    target.width = across;
    target.height = down;
  }
  const side = view.mirrored ? -1 : 1;
  const scale = view.scale * dense;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, across, down);
  context.setTransform(
    side * scale,
    0,
    0,
    scale,
    across / 2 - side * view.cx * scale,
    down / 2 - view.cy * scale,
  );
  context.imageSmoothingEnabled = view.scale < SHARP_FROM;
  context.drawImage(image, 0, 0, width, height);
}
