import type { components } from "../../api/schema";

export type TokenDrawing = components["schemas"]["TokenDrawing"];
export type AimDrawing = components["schemas"]["AimDrawing"];
export type WheelDrawing = components["schemas"]["WheelDrawing"];
export type WheelsDrawing = components["schemas"]["WheelsDrawing"];
