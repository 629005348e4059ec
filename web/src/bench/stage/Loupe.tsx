import { useEffect, useRef } from "react";
import type { Point, Size } from "../../drawn/stageView";

const SIDE = 132;
const POWER = 5;
const LIFT = 84;

interface Props {
  image: () => ImageBitmap | undefined;
  picture: Size;
  at: Point; // picture px
  under: Point; // stage px
  stage: Size;
  scale: number;
  mirrored: boolean;
  stamp: string;
}

/** The picture under the pointer, five times as large, with a cross on the very point. */
export function Loupe({ image, picture, at, under, stage, scale, mirrored, stamp }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: stamp says that the bitmap has changed
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    let request = 0;
    const draw = () => {
      const bitmap = image();
      if (!context) return;
      if (!bitmap) {
        request = requestAnimationFrame(draw); // it is still being copied
        return;
      }
      const power = POWER * scale;
      const side = mirrored ? -1 : 1;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.fillStyle = "#10201D";
      context.fillRect(0, 0, SIDE, SIDE);
      context.setTransform(
        side * power,
        0,
        0,
        power,
        SIDE / 2 - side * at.x * power,
        SIDE / 2 - at.y * power,
      );
      context.imageSmoothingEnabled = false;
      context.drawImage(bitmap, 0, 0, picture.width, picture.height);
    };
    draw();
    return () => cancelAnimationFrame(request);
  }, [image, picture, at.x, at.y, scale, mirrored, stamp]);
  const above = under.y - LIFT - SIDE / 2 > 0;
  const left = Math.min(Math.max(under.x - SIDE / 2, 4), stage.width - SIDE - 4);
  const top = above ? under.y - LIFT - SIDE / 2 : under.y + LIFT - SIDE / 2;
  return (
    <div
      className="pointer-events-none absolute overflow-hidden rounded-full border-2 border-brass shadow-lg"
      style={{ left, top, width: SIDE, height: SIDE }}
      data-testid="loupe"
    >
      <canvas ref={canvas} width={SIDE} height={SIDE} />
      <svg className="absolute inset-0" width={SIDE} height={SIDE} aria-hidden="true">
        <path
          d={`M${SIDE / 2} 0V${SIDE / 2 - 5}M${SIDE / 2} ${SIDE}V${SIDE / 2 + 5}M0 ${SIDE / 2}H${SIDE / 2 - 5}M${SIDE} ${SIDE / 2}H${SIDE / 2 + 5}`}
          stroke="#F6F3EA"
          strokeWidth={1}
        />
      </svg>
    </div>
  );
}
