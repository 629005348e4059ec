import { DrawnFrame } from "../lesson/DrawnFrame";
import type { Units } from "../units";
import type { Hand } from "../words";
import type { Try } from "./tryWords";

/** The moment that a check looks at, with what was measured there. */
export function TryPicture(props: { of: Try; src: string; units: Units; hand: Hand; beside?: boolean }) {
  const { of, src, units, hand, beside } = props;
  const answer = of.answer;
  if (!answer?.drawn) return null;
  const frame = { frame: answer.frame, drawn: answer.drawn };
  return <DrawnFrame frame={frame} src={src} units={units} hand={hand} beside={beside} />;
}
