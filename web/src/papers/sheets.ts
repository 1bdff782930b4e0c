import { useQuery } from "@tanstack/react-query";
import { api, type SheetInput, type SheetSpec, type Want, type Way } from "../api/client";

/** Whether a pattern does on a sheet. */
export function useFit(pattern: string, sheet: SheetInput | undefined, knobs: Record<string, number>) {
  return useQuery({
    queryKey: ["fit", pattern, sheet, knobs],
    queryFn: () => (sheet ? api.fit(pattern, sheet, knobs) : Promise.reject(new Error("no sheet"))),
    enabled: sheet !== undefined,
    placeholderData: (old) => old,
    retry: false,
    staleTime: Infinity,
  }).data;
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
  const found = useQuery({
    queryKey: ["origin", from, sheet.gsm, sheet.thickness_mm],
    queryFn: () =>
      from
        ? api.ways(
            { width: from.width_mm, height: from.height_mm, unit: "mm" },
            from.want,
            false,
            sheet.gsm,
            sheet.thickness_mm,
          )
        : Promise.reject(new Error("no origin")),
    enabled: from !== undefined,
    staleTime: Infinity,
    retry: false,
  });
  return from && found.data?.ways.find((w) => w.name === sheet.way);
}

/** The same sheet turned over sideways: its other side up, the creases it has mirrored. */
export const turnedOver = (s: SheetSpec): SheetSpec => ({
  ...s,
  made: s.made?.map((crease) => crease.map((v, i) => (i % 2 === 0 ? s.width_mm - v : v))),
  front: s.back,
  back: s.front,
  turned: !s.turned,
});
