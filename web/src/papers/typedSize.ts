import type { SizeInput } from "../api/client";
import { number, parseLength, type Units } from "../units";

/** A size as it is typed, and the unit of what is typed without one. */
export interface TypedSize {
  width: string;
  height: string;
  units: Units;
}

/** A length in mm as it is shown in the person's unit, exactly. */
export const typedLength = (mm: number, units: Units): string =>
  number(units === "mm" ? mm : mm / 25.4, units === "mm" ? 2 : 4);

/** A size in mm as it is shown in the person's unit, exactly. */
export const typed = (widthMM: number, heightMM: number, units: Units): TypedSize => ({
  width: typedLength(widthMM, units),
  height: typedLength(heightMM, units),
  units,
});

/** What was typed, told in another unit; what is no length stays as it is. */
export function toldIn<T extends TypedSize>(s: T, units: Units): T {
  if (s.units === units) return s;
  const told = (text: string) => {
    const mm = parseLength(text, s.units);
    return mm === undefined ? text : typedLength(mm, units);
  };
  return { ...s, width: told(s.width), height: told(s.height), units };
}

/** What was typed, for the API, which speaks mm; undefined when it is no length. */
export function sizeInput(s: TypedSize): SizeInput | undefined {
  const width = parseLength(s.width, s.units);
  const height = parseLength(s.height, s.units);
  return width === undefined || height === undefined ? undefined : { width, height, unit: "mm" };
}
