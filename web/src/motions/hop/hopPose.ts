import type { LeapDrawing } from "./types";

export type Frame = LeapDrawing["frames"][number];
export type Pose = Frame["pose"];

/** What is to be seen at a place of the slider, 0 to 1: the last frame that has begun. */
export const moment = (d: LeapDrawing, at: number): Frame | undefined =>
  d.frames.findLast((f) => f.at <= at) ?? d.frames[0];

/** The toy as it leaves the table. */
export const leaving = (d: LeapDrawing): Frame | undefined =>
  d.frames.findLast((f) => f.phase === "push") ?? d.frames[0];
