import type { ComponentType } from "react";
import type { Moving, Prediction } from "../api/client";
import type { FaceProps, MatProps, Motion, PlayProps } from "./drawing";

// Each way of moving is a folder beside this file, and its index is its registration.
const all = Object.values(import.meta.glob<{ default: Motion }>("./*/index.ts", { eager: true })).map(
  (m) => m.default,
);

const nothing: ComponentType<MatProps> = ({ prediction }) => prediction.mode_words;

const none: ComponentType<FaceProps> = () => null;

/** What draws a prediction, by the kind of its drawing; its words where nobody does. */
export function drawerOf(p: Prediction): { Mat: ComponentType<MatProps> } {
  const kind = p.drawing?.kind ?? "";
  return { Mat: all.find((m) => kind in m.mats)?.mats[kind] ?? nothing };
}

/** What lies under a clock on which directions of a toy are tapped. */
export function faceOf(p: Prediction): { Face: ComponentType<FaceProps> } {
  const kind = p.drawing?.kind ?? "";
  return { Face: all.find((m) => kind in m.mats)?.faces?.[kind] ?? none };
}

/** What plays a toy on the screen; nothing where it is not played so. */
export function playerOf(p: Prediction): { Player: ComponentType<PlayProps> | undefined } {
  const kind = p.drawing?.kind ?? "";
  return { Player: all.find((m) => kind in m.mats)?.plays?.[kind] };
}

/** The views that a way of moving adds to those that all have. */
export const viewsOf = (way: Moving) =>
  (all.find((m) => m.way === way.moves)?.views ?? []).filter((v) => !v.of || v.of.includes(way.name));
