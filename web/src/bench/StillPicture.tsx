import { flushSync } from "react-dom";
import { createRoot } from "react-dom/client";
import { stillOf } from "../api/queries";
import { moved } from "../drawn/cameraMotion";
import { GaugeLayer } from "../drawn/GaugeLayer";
import type { Point } from "../drawn/stageView";
import { fromImpact, type Units } from "../units";
import { isBody, VIEW_WORDS } from "../words";
import { onOf, type SideState, timelineOf } from "./benchState";
import { timeFromImpact } from "./rule/pegLink";

const HEIGHT = 960; // of the picture that is taken away, pixels
const FOOT = 34;
const TYPE = "JetBrains Mono, ui-monospace, monospace";

interface Props {
  state: SideState;
  frame: number;
  shown: string[]; // gauges
  units: Units;
  ink: string;
  picture?: string; // its address; none: only what lies over it
}

/** A stage's frame with its gauges, and beneath whose it is, which frame and when. */
function StillPicture({ state, frame, shown, units, ink, picture }: Props) {
  const { clip } = state;
  const on = onOf(state);
  const scale = HEIGHT / clip.height;
  const width = Math.round(clip.width * scale);
  const place = (point: Point) => {
    const at = moved(clip.camera_motion, frame, point);
    return { x: (state.mirrored ? clip.width - at.x : at.x) * scale, y: at.y * scale };
  };
  const words = `${state.swing.title} · ${VIEW_WORDS[clip.view]} · frame ${frame} · ${fromImpact(timeFromImpact(timelineOf(state), frame))}`;
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      width={width}
      height={HEIGHT + FOOT}
      viewBox={`0 0 ${width} ${HEIGHT + FOOT}`}
      fontFamily={TYPE}
    >
      <title>{words}</title>
      {picture && (
        <image
          href={picture}
          width={width}
          height={HEIGHT}
          transform={state.mirrored ? `translate(${width} 0) scale(-1 1)` : undefined}
        />
      )}
      <GaugeLayer
        gauges={on.gauges.filter((gauge) => shown.includes(gauge.id))}
        frame={frame}
        place={place}
        wide={width}
        clear={on.marks.filter((mark) => mark.frame === frame && isBody(mark.name))}
        units={units}
        ink={ink}
      />
      <rect y={HEIGHT} width={width} height={FOOT} fill="#10201D" />
      <text x={12} y={HEIGHT + 22} fontSize={14} fill="#F6F3EA">
        {words}
      </text>
    </svg>
  );
}

function written(props: Props): string {
  const box = document.createElement("div");
  const root = createRoot(box);
  flushSync(() => root.render(<StillPicture {...props} />));
  const svg = box.innerHTML;
  root.unmount();
  return svg;
}

async function pictureOf({ state, frame }: Pick<Props, "state" | "frame">): Promise<Blob> {
  const answer = await fetch(stillOf(state.clip, frame));
  if (!answer.ok) throw new Error("The frame could not be fetched. Try again.");
  return answer.blob();
}

const asData = (blob: Blob) =>
  new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(blob);
  });

/** The stage's frame as SVG: the picture inside, the gauges as lines and words. */
export async function stillSvg(props: Omit<Props, "picture">): Promise<Blob> {
  const picture = await asData(await pictureOf(props));
  return new Blob([written({ ...props, picture })], { type: "image/svg+xml" });
}

/** The same as PNG. */
export async function stillPng(props: Omit<Props, "picture">): Promise<Blob> {
  const { clip, mirrored } = props.state;
  const picture = await createImageBitmap(await pictureOf(props));
  const over = new Image();
  const address = URL.createObjectURL(new Blob([written(props)], { type: "image/svg+xml" }));
  try {
    over.src = address;
    await over.decode();
    const canvas = document.createElement("canvas");
    canvas.width = Math.round((clip.width * HEIGHT) / clip.height);
    canvas.height = HEIGHT + FOOT;
    const pen = canvas.getContext("2d");
    if (!pen) throw new Error("This browser cannot draw the picture.");
    pen.save();
    if (mirrored) {
      pen.translate(canvas.width, 0);
      pen.scale(-1, 1);
    }
    pen.drawImage(picture, 0, 0, canvas.width, HEIGHT);
    pen.restore();
    pen.drawImage(over, 0, 0);
    return await new Promise((resolve, reject) =>
      canvas.toBlob((blob) =>
        blob ? resolve(blob) : reject(new Error("The picture could not be written.")),
      ),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}
