import { useState } from "react";
import type { SizeInput } from "../api/client";
import { useUnits } from "../settings";
import { number, parse, parseLength, type Units } from "../units";

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

/** A typed length in another unit; what is no length stays as it is. */
function told(text: string, from: Units, to: Units): string {
  const mm = from === to ? undefined : parseLength(text, from);
  return mm === undefined ? text : typedLength(mm, to);
}

/** What was typed, told in another unit; what is no length stays as it is. */
export function toldIn<T extends TypedSize>(s: T, units: Units): T {
  if (s.units === units) return s;
  return { ...s, width: told(s.width, s.units, units), height: told(s.height, s.units, units), units };
}

/** Lengths typed into a row of fields, empty at first, and how to change one. */
export function useTypedLengths(count: number): [string[], (i: number, text: string) => void] {
  const units = useUnits();
  const [kept, keep] = useState({ texts: Array.from({ length: count }, () => ""), units });
  const texts = kept.texts.map((t) => told(t, kept.units, units));
  return [texts, (i, text) => keep({ texts: texts.map((t, j) => (i === j ? text : t)), units })];
}

/** What was typed, for the API, which speaks mm; undefined when it is no length. */
export function sizeInput(s: TypedSize): SizeInput | undefined {
  const width = parseLength(s.width, s.units);
  const height = parseLength(s.height, s.units);
  return width === undefined || height === undefined ? undefined : { width, height, unit: "mm" };
}

/**
 * What was typed, in the unit it was typed in, to ask which size is meant: numbers
 * that make no sheet in mm may do in another unit.
 */
export function nearSize(s: TypedSize): SizeInput | undefined {
  const [width, height] = [parse(s.width, s.units), parse(s.height, s.units)];
  return width === undefined || height === undefined ? sizeInput(s) : { width, height, unit: s.units };
}
