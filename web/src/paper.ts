import { useQuery } from "@tanstack/react-query";
import type { SheetSpec } from "./api/client";
import { question } from "./api/queries";

/** Until it is known what ordinary paper is like. */
const blank: SheetSpec = {
  width_mm: 0,
  height_mm: 0,
  gsm: 0,
  thickness_mm: 0,
  paper: "",
  front: "#ffffff",
  back: "#ffffff",
};

/** Ordinary copying paper, for what nobody has described. */
export const usePlainPaper = (): SheetSpec => useQuery(question.plainPaper()).data ?? blank;
