import { useQuery } from "@tanstack/react-query";
import { type SheetInput, type SheetSpec, type Want, type Way } from "../api/client";
import { question } from "../api/queries";

/** Whether a pattern does on a sheet. */
export function useFit(pattern: string, sheet: SheetInput | undefined, knobs: Record<string, number>) {
  return useQuery(question.fit(pattern, sheet, knobs)).data;
}

/** A typed side in mm. */
export const inMM = (v: number, unit: SheetInput["unit"]) =>
  unit === "in" ? v * 25.4 : unit === "cm" ? v * 10 : v;

/** The sheet that a way gives, with the creases it leaves. */
export function pieceOf(sheet: SheetInput, way: Way, want: Want): SheetInput {
  return {
    ...sheet,
    width: way.width_mm,
    height: way.height_mm,
    unit: "mm",
    way: way.name,
    made: way.made,
    error_mm: way.error_mm,
    from: { width_mm: inMM(sheet.width, sheet.unit), height_mm: inMM(sheet.height, sheet.unit), want },
  };
}

/** How the sheet of a build is got, step by step; undefined when it needs nothing. */
export function useOrigin(sheet: SheetSpec): Way | undefined {
  const { from } = sheet;
  const found = useQuery(question.origin(sheet));
  return from && found.data?.ways.find((w) => w.name === sheet.way);
}
