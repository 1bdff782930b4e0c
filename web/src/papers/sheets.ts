import { useQuery } from "@tanstack/react-query";
import { type Fit, type SheetInput, type SheetSpec, type Want, type Way } from "../api/client";
import { question } from "../api/queries";
import { length, number, sheetSize, smallLength, type Units } from "../units";

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

/** The same sheet laid a quarter round, without what was done to it the other way up. */
export function turnedQuarter(sheet: SheetInput): SheetInput {
  const { width, height, unit, gsm, thickness_mm, paper, front, back } = sheet;
  return {
    width: height,
    height: width,
    unit,
    gsm,
    thickness_mm,
    ...(paper ? { paper } : {}),
    ...(front ? { front } : {}),
    ...(back ? { back } : {}),
  };
}

/** How the sheet of a build is got, step by step; undefined when it needs nothing. */
export function useOrigin(sheet: SheetSpec): Way | undefined {
  const { from } = sheet;
  const found = useQuery(question.origin(sheet));
  return from && found.data?.ways.find((w) => w.name === sheet.way);
}

/** What a size that cannot be cut from a sheet comes to in its proportions. */
export function sameProportions(o: Fit["own"], units: Units): string {
  const trim =
    o.off_mm < 0.05
      ? "nothing to trim"
      : `trim ${length(o.off_mm, units)} off the ${o.off_width ? "width" : "height"}`;
  return `With the same proportions it gives ${sheetSize(o.width_mm, o.height_mm, units)}: ${trim}. Every length is then ${number(100 * o.scale, 1)} % of the pattern's; an inch of it becomes ${smallLength(o.inch_mm, units, 2)}.`;
}
