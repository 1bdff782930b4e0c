import type { components } from "../../api/schema";

export type BirdDrawing = components["schemas"]["BirdDrawing"];
export type SnapDrawing = components["schemas"]["SnapDrawing"];
export type PaperDrawing = components["schemas"]["PaperDrawing"];
