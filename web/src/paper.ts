import type { SheetSpec } from "./api/client";

/** Face colours of paper that nobody has described. */
export const plainFaces = { front: "#fdf8ea", back: "#b5c9c4" };

/** Ordinary copying paper, A4. */
export const ordinary: SheetSpec = {
  width_mm: 210,
  height_mm: 297,
  gsm: 80,
  thickness_mm: 0.1,
  paper: "",
  ...plainFaces,
};
