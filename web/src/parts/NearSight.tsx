import { type ReactNode, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";

const MARGIN = "600px 0px"; // drawn this far before it comes into sight

/** Keeps the room of a picture of that shape, and draws it once it comes near the sight, or is printed. */
export function NearSight(props: { width: number; height: number; atOnce: boolean; children: ReactNode }) {
  const { width, height, atOnce, children } = props;
  const room = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(atOnce);
  useEffect(() => {
    if (near || !room.current) return;
    const watch = new IntersectionObserver(
      (seen) => seen.some(({ isIntersecting }) => isIntersecting) && setNear(true),
      { rootMargin: MARGIN },
    );
    watch.observe(room.current);
    const all = () => flushSync(() => setNear(true));
    window.addEventListener("beforeprint", all);
    return () => {
      watch.disconnect();
      window.removeEventListener("beforeprint", all);
    };
  }, [near]);
  return (
    <div ref={room} style={{ aspectRatio: `${width} / ${height}` }}>
      {near && children}
    </div>
  );
}
