import type { LeapDrawing } from "./types";

/** A toy in profile, m: x ahead of where the second fold stood, y over the table. */
export interface Pose {
  rear: [number, number];
  catch: [number, number];
  hip: [number, number];
  nose: [number, number];
  com: [number, number];
}

const rad = Math.PI / 180;

/** The toy on the table, its pleat open so far and its body pitched so. */
export function onTable(d: LeapDrawing, f: { x: number; open: number; pitch: number }): Pose {
  const side = d.flipped ? -1 : 1;
  const x = side * f.x;
  const hip: [number, number] = [
    x - side * d.middle_m * Math.cos(f.open * rad),
    d.middle_m * Math.sin(f.open * rad),
  ];
  const along = (m: number): [number, number] => [
    hip[0] + m * Math.cos(f.pitch * rad),
    hip[1] + m * Math.sin(f.pitch * rad),
  ];
  return { rear: [x - side * d.foot_m, 0], catch: [x, 0], hip, nose: along(d.body_m), com: along(d.com_m) };
}

/** The toy in the air: its centre of mass there, turned so, the pleat as far open as it was. */
export function inAir(d: LeapDrawing, at: { x: number; y: number; pitch: number }): Pose {
  const last = d.push.at(-1);
  const on = onTable(d, { x: 0, open: last?.open ?? 60, pitch: last?.pitch ?? 0 });
  const turn = (at.pitch - (last?.pitch ?? 0)) * rad;
  const moved = ([x, y]: [number, number]): [number, number] => {
    const [dx, dy] = [x - on.com[0], y - on.com[1]];
    return [
      at.x + dx * Math.cos(turn) - dy * Math.sin(turn),
      at.y + dx * Math.sin(turn) + dy * Math.cos(turn),
    ];
  };
  return {
    rear: moved(on.rear),
    catch: moved(on.catch),
    hip: moved(on.hip),
    nose: moved(on.nose),
    com: moved(on.com),
  };
}

/** Shares of the slider that pressing and the push take; the rest is the flight. */
export const pressUntil = 0.12;
export const pushUntil = 0.4;

/** What is to be seen at a place of the slider, 0 to 1. */
export function moment(
  d: LeapDrawing,
  u: number,
): { pose: Pose; phase: "press" | "push" | "air"; t: number } {
  const first = d.push[0] ?? { t: 0, x: 0, open: d.rest.open, pitch: d.rest.pitch };
  if (u < pressUntil || d.path.length === 0) {
    const k = Math.min(1, u / pressUntil);
    const mix = (a: number, b: number) => a + k * (b - a);
    const pose = onTable(d, {
      x: 0,
      open: mix(d.rest.open, first.open),
      pitch: mix(d.rest.pitch, first.pitch),
    });
    return { pose, phase: "press", t: 0 };
  }
  if (u < pushUntil) {
    const at = ((u - pressUntil) / (pushUntil - pressUntil)) * (d.push.length - 1);
    const f = d.push[Math.round(at)] ?? first;
    return { pose: onTable(d, f), phase: "push", t: f.t };
  }
  const at = Math.round(((u - pushUntil) / (1 - pushUntil)) * (d.path.length - 1));
  const p = d.path[at] ?? { t: 0, x: 0, y: 0, pitch: 0 };
  return { pose: inAir(d, p), phase: "air", t: p.t };
}
