import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { meQuery } from "../../api/queries";
import type { Size, View } from "../../drawn/stageView";
import { useBench } from "../benchContext";
import { rivalOn, type SideState } from "../benchState";
import { useFrames } from "../frames/useFrames";
import { bothSquared, laidTrouble, overlayView } from "./overlayView";

const SAID = "absolute top-2 right-2 left-2 z-10 border-l-4 border-brass bg-dusk/90 p-2 text-sm text-paper";

/** The other swing laid over the student's stage, on the same foot and at the same size; or why it is not. */
export function Overlay({ lower, view, stage }: { lower: SideState; view: View; stage: Size }) {
  const upper = useBench((bench) => rivalOn(bench, "reference"));
  const shown = useBench((bench) => (bench.flicker ? 1 : bench.overlay));
  const units = useQuery(meQuery).data?.units ?? "cm";
  if (!upper || shown === 0) return null;
  const trouble = laidTrouble(lower, upper, units);
  const laid = trouble ? null : overlayView(lower, upper, view);
  if (!laid)
    return (
      <p role="status" className={SAID}>
        Not laid over. {trouble}
      </p>
    );
  return (
    <>
      <Laid upper={upper} laid={laid} stage={stage} shown={shown} />
      {!bothSquared(lower, upper) && (
        <p role="status" className={SAID}>
          By foot and size only: without a mat in both nobody knows how square the cameras stood.
        </p>
      )}
    </>
  );
}

function Laid(props: { upper: SideState; laid: View; stage: Size; shown: number }) {
  const { upper, stage, shown } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const { scale, cx, cy, mirrored } = props.laid;
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
