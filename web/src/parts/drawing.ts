import { useEffect, useRef, useState } from "react";

/** Width of a box as it is laid out. */
export function useWidth(start: number) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(start);
  useEffect(() => {
    if (!box.current) return undefined;
    const el = box.current;
    const watch = new ResizeObserver(() => setWidth(Math.max(280, el.clientWidth)));
    watch.observe(el);
    return () => watch.disconnect();
  }, []);
  return { box, width };
}

/** The data of a path through points. */
export const polyline = (points: [number, number][]) =>
  points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
