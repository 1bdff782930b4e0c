import type { Sample } from "./types";

/** The sample at a moment of the flight. */
export function moment(path: Sample[], t: number): Sample {
  const i = path.findIndex((p) => p.t >= t);
  const p = path[i < 0 ? path.length - 1 : i];
  return p ?? { t: 0, x: 0, y: 0, z: 0, speed: 0, attack: 0, pitch: 0, bank: 0, heading: 0 };
}
