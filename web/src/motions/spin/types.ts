import type { components } from "../../api/schema";

export type TokenDrawing = components["schemas"]["TokenDrawing"];
