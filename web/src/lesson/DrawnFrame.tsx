import type { Schemas } from "../api/client";
import { GaugeLayer } from "../drawn/GaugeLayer";
import { INK } from "../drawn/ink";
import type { Units } from "../units";
import type { Hand } from "../words";

type Frame = Schemas["LessonFrameOut"];

const SHOWN_WIDTH = 420;

/** A lesson's frame: the still with its gauges and values as they were drawn on the bench. */
export function DrawnFrame(props: {
  frame: Frame;
  src: string;
  units: Units;
  mirrored?: boolean;
  hand?: Hand; // of the student who reads it
}) {
  const { frame, src, units, mirrored = false, hand } = props;
  const { drawn } = frame;
  const { left, top, width, height } = drawn.crop;
  const scale = SHOWN_WIDTH / width;
  const place = ({ x, y }: { x: number; y: number }) => ({
    x: mirrored ? SHOWN_WIDTH - (x - left) * scale : (x - left) * scale,
    y: (y - top) * scale,
  });
  const words = `Frame ${frame.frame} of ${drawn.name}${drawn.checkpoint ? `, ${drawn.checkpoint}` : ""}`;
  return (
    <svg
      viewBox={`0 0 ${SHOWN_WIDTH} ${height * scale}`}
      className="block w-full rounded-sm bg-dusk"
      role="img"
      aria-label={words}
    >
      <image
        href={src}
        x={-left * scale}
        y={-top * scale}
        width={drawn.width * scale}
        height={drawn.height * scale}
        transform={mirrored ? `translate(${SHOWN_WIDTH} 0) scale(-1 1)` : undefined}
      />
      <GaugeLayer
        gauges={drawn.gauges}
        frame={null}
        place={place}
        wide={SHOWN_WIDTH}
        units={units}
        ink={INK[drawn.whose]}
        hand={hand}
      />
    </svg>
  );
}
