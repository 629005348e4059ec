import { useRef } from "react";
import type { Size, View } from "../../drawn/stageView";
import { useBench } from "../benchContext";
import { rivalOn, type SideState } from "../benchState";
import { useFrames } from "../frames/useFrames";
import { overlayView } from "./overlayView";

/** The reference laid over the student's stage, on the same foot and at the same size. */
export function Overlay({ lower, view, stage }: { lower: SideState; view: View; stage: Size }) {
  const upper = useBench((bench) => rivalOn(bench, "reference"));
  const shown = useBench((bench) => (bench.flicker ? 1 : bench.overlay));
  if (!upper || shown === 0) return null;
  return <Laid lower={lower} upper={upper} view={view} stage={stage} shown={shown} />;
}

function Laid(props: { lower: SideState; upper: SideState; view: View; stage: Size; shown: number }) {
  const { lower, upper, view, stage, shown } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const { scale, cx, cy, mirrored } = overlayView(lower, upper, view);
  const last = useRef<View | null>(null);
  const now = last.current;
  if (!now || now.scale !== scale || now.cx !== cx || now.cy !== cy || now.mirrored !== mirrored)
    last.current = { scale, cx, cy, mirrored };
  const { frame } = useBench((bench) => bench.stands.reference);
  const drawn = useFrames(upper.clip, "reference", canvas, last.current, stage);
  return (
    <canvas
      ref={canvas}
      className="pointer-events-none absolute inset-0 h-full w-full"
      style={{ opacity: shown }}
      data-overlay={drawn.frame ?? ""}
      aria-label={`${upper.swing.title}, frame ${frame}, laid over`}
      role="img"
    />
  );
}
