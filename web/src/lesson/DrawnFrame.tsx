import type { Schemas } from "../api/client";
import { ChalkLayer } from "../drawn/ChalkLayer";
import { GaugeLayer } from "../drawn/GaugeLayer";
import { INK } from "../drawn/ink";
import type { Units } from "../units";
import type { Hand } from "../words";

type Frame = Pick<Schemas["LessonFrameOut"], "frame" | "drawn">;

const [ALONE_WIDE, PAIRED_WIDE] = [420, 220]; // labels keep their size, however small the picture is

/** A lesson's frame: the still with its gauges and values as they were drawn on the bench. */
export function DrawnFrame(props: {
  frame: Frame;
  src: string;
  units: Units;
  mirrored?: boolean;
  beside?: boolean; // it is one of a pair
  hand?: Hand; // of the student who reads it
}) {
  const { frame, src, units, mirrored = false, beside = false, hand } = props;
  const shownWide = beside ? PAIRED_WIDE : ALONE_WIDE;
  const { drawn } = frame;
  const { left, top, width, height } = drawn.crop;
  const scale = shownWide / width;
  const place = ({ x, y }: { x: number; y: number }) => ({
    x: mirrored ? shownWide - (x - left) * scale : (x - left) * scale,
    y: (y - top) * scale,
  });
  const words = `Frame ${frame.frame} of ${drawn.name}${drawn.checkpoint ? `, ${drawn.checkpoint}` : ""}`;
  return (
    <svg
      viewBox={`0 0 ${shownWide} ${height * scale}`}
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
        transform={mirrored ? `translate(${shownWide} 0) scale(-1 1)` : undefined}
      />
      <GaugeLayer
        gauges={drawn.gauges}
        frame={null}
        place={place}
        wide={shownWide}
        units={units}
        ink={INK[drawn.whose]}
        hand={hand}
      />
      <ChalkLayer strokes={drawn.chalk} pointer={null} place={place} />
    </svg>
  );
}
