import type { components } from "../../api/schema";

export type LeapDrawing = components["schemas"]["LeapDrawing"];
