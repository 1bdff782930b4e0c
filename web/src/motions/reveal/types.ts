import type { components } from "../../api/schema";

export type TellerDrawing = components["schemas"]["TellerDrawing"];
export type TellerTold = components["schemas"]["TellerTold"];
export type RingDrawing = components["schemas"]["RingDrawing"];
export type RingState = components["schemas"]["RingState"];
export type RingTold = components["schemas"]["RingTold"];
