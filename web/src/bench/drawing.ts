import { useEffect, useRef, useState } from "react";
import type { Sample } from "../api/client";

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

/** The sample at a moment of the flight. */
export function moment(path: Sample[], t: number): Sample {
  const i = path.findIndex((p) => p.t >= t);
  const p = path[i < 0 ? path.length - 1 : i];
  return p ?? { t: 0, x: 0, y: 0, z: 0, speed: 0, attack: 0, pitch: 0, bank: 0, heading: 0 };
}
