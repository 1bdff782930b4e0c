import type { Change, SheetSpec } from "./api/client";
import { parse, parseLength } from "./amount";
import { decimal, sixteenths, type Units } from "./say";

export { parse, parseLength, parseNumber } from "./amount";
export type { Units } from "./say";

// The one place where numbers become words. The API speaks mm, m, s, g and
// degrees; here they get the person's units.

const mmPerInch = 25.4;

/** A number with at most the given decimals and no trailing zeros. */
export const number = (v: number, decimals = 1): string => decimal(v, decimals);

export function lengthValue(mm: number, units: Units, decimals = 1): string {
  return units === "mm" ? number(mm, decimals) : sixteenths(mm);
}

export function length(mm: number, units: Units, decimals = 1): string {
  return `${lengthValue(mm, units, decimals)} ${units}`;
}

/** Thickness of paper: too thin for sixteenths, so decimals in both units. */
export function thickness(mm: number, units: Units): string {
  return units === "mm" ? `${number(mm, mm < 0.1 ? 3 : 2)} mm` : `${number(mm / mmPerInch, 3)} in`;
}

/**
 * An error or a gap: too small for sixteenths, so decimals in both units; what
 * would round to nothing but is not nothing says so.
 */
export function smallLength(mm: number, units: Units, decimals = 1): string {
  const [v, places] = units === "mm" ? [mm, decimals] : [mm / mmPerInch, 3];
  const least = 10 ** -places;
  const tiny = Math.abs(mm) > 1e-9 && Math.abs(v) < least / 2;
  return `${tiny ? `under ${number(least, places)}` : number(v, places)} ${units}`;
}

/** What being off at a step does at the end: for 1 mm, or for a sixteenth of an inch. */
export function costOfSlip(perMM: number, worst: string, units: Units): string {
  const off = units === "mm" ? 1 : mmPerInch / 16;
  return `${length(off, units)} off here moves ${worst} by ${smallLength(perMM * off, units)} at the end`;
}

/** Areas in cm² or square inches. */
export function area(mm2: number, units: Units): string {
  return units === "mm" ? `${number(mm2 / 100, 0)} cm²` : `${number(mm2 / (mmPerInch * mmPerInch), 1)} sq in`;
}

export const sheetSize = (widthMM: number, heightMM: number, units: Units) =>
  `${lengthValue(widthMM, units)} × ${lengthValue(heightMM, units)} ${units}`;

/** A knob's value with its unit. */
export function knobValue(v: number, unit: string, units: Units): string {
  if (unit === "mm") return units === "in" && Math.abs(v) < 3 ? smallLength(v, units) : length(v, units);
  if (unit === "deg") return `${number(v)}°`;
  if (unit === "g") return `${number(v, 2)} g`;
  if (unit === "m/s") return `${number(v)} m/s`;
  if (unit === "part") return `${number(100 * v, 1)} % of the way`;
  return number(v, 3);
}

/** Distances and heights in the hall: metres, or feet and inches. */
export function distance(m: number, units: Units): string {
  if (units === "mm") return `${m.toFixed(1)} m`;
  const all = Math.round((m * 1000) / mmPerInch);
  return `${Math.floor(all / 12)} ft ${all % 12} in`;
}

/** A reading in its own unit, or in the person's for lengths of the toy and areas. */
export function readingValue(v: number, unit: string, decimals: number, units: Units): string {
  // A sixteenth is too coarse for what is told to tenths of a millimetre.
  if (unit === "mm" && units === "in" && Math.abs(v) < 6) return number(v / mmPerInch, 2);
  if (unit === "mm") return lengthValue(v, units, decimals);
  if (unit === "cm²" && units === "in") return number((v * 100) / (mmPerInch * mmPerInch), 1);
  if (unit === "°/m" && units === "in") return number(v / inHallUnit(1, units), decimals);
  return number(v, decimals);
}

/** A knob's value as it stands on its dial, and the unit behind it. */
export function dialValue(v: number, unit: string, fine: boolean, units: Units): [string, string] {
  if (unit === "mm")
    return [fine ? smallLength(v, units, 2).replace(/ .*/, "") : lengthValue(v, units), units];
  if (unit === "part") return [number(100 * v, 1), "%"];
  return [number(v, 3), unit === "deg" ? "°" : unit];
}

/** What was typed on a dial, in the knob's own unit; undefined when it is no number. */
export function dialled(text: string, unit: string, units: Units): number | undefined {
  if (unit === "mm") return parseLength(text, units);
  const v = parse(text, unit === "deg" ? "°" : unit === "part" ? "%" : unit);
  return v === undefined || unit !== "part" ? v : v / 100;
}

/** The unit that goes with it. */
export function readingUnit(unit: string, units: Units): string {
  if (unit === "mm") return units;
  if (unit === "cm²" && units === "in") return "sq in";
  if (unit === "°/m") return `°/${hallUnit(units)}`;
  return unit === "deg" ? "°" : unit;
}

/** The unit of the hall: metres, or feet. */
export const hallUnit = (units: Units) => (units === "mm" ? "m" : "ft");
export const inHallUnit = (m: number, units: Units) => (units === "mm" ? m : (m * 1000) / (12 * mmPerInch));
export const fromHallUnit = (v: number, units: Units) => (units === "mm" ? v : (v * 12 * mmPerInch) / 1000);

/** The unit that a reading or condition is typed in: its own, or that of the person. */
export function recordUnit(unit: string, units: Units): string {
  if (unit === "m") return hallUnit(units);
  if (unit === "cm") return units === "mm" ? "cm" : "in";
  if (unit === "mm") return units;
  return unit === "deg" ? "°" : unit;
}

/** A reading, kept in SI units, as it is typed; and back. */
export function inRecordUnit(v: number, unit: string, units: Units): number {
  if (unit === "m") return inHallUnit(v, units);
  if (unit === "cm") return units === "mm" ? v * 100 : (v * 1000) / mmPerInch;
  if (unit === "mm") return units === "mm" ? v : v / mmPerInch;
  return v;
}

export function fromRecordUnit(v: number, unit: string, units: Units): number {
  if (unit === "m") return fromHallUnit(v, units);
  if (unit === "cm") return units === "mm" ? v / 100 : (v * mmPerInch) / 1000;
  if (unit === "mm") return units === "mm" ? v : v * mmPerInch;
  return v;
}

/** A reading with its unit. */
export function recordValue(v: number, unit: string, units: Units, decimals = 1): string {
  if (unit === "m") return distance(v, units);
  const shown = number(
    inRecordUnit(v, unit, units),
    unit === "cm" ? 1 : decimals + (unit === "mm" && units === "in" ? 1 : 0),
  );
  return unit ? `${shown}${unit === "deg" ? "" : " "}${recordUnit(unit, units)}` : shown;
}

/** A predicted outcome; what lies to a side is told by the side's name. */
export function outcomeValue(
  v: number,
  o: { unit: string; decimals: number; sides: string[]; most?: number },
  units: Units,
): string {
  if (o.most && v > o.most) return `over ${recordValue(o.most, o.unit, units, o.decimals)}`;
  const [minus, plus, neither] = o.sides;
  if (minus === undefined || plus === undefined) return recordValue(v, o.unit, units, o.decimals);
  const least = 0.5 * 10 ** -o.decimals * (o.unit === "cm" ? 0.01 : 1);
  if (neither !== undefined && Math.abs(v) < least) return neither;
  return `${recordValue(Math.abs(v), o.unit, units, o.decimals)} ${v < 0 ? minus : plus}`;
}

/** The band of an outcome: its unit and side once where both ends have the same. */
export function outcomeRange(
  o: { unit: string; decimals: number; sides: string[]; most?: number; lo: number; hi: number },
  units: Units,
): string {
  if (o.most && o.lo > o.most) return outcomeValue(o.lo, o, units);
  const sided = o.sides.length > 1;
  const cross = sided && o.lo < 0 !== o.hi < 0;
  // Nearest first: what lies to the negative side is told without its sign.
  const [a, b] = sided && o.hi <= 0 ? [o.hi, o.lo] : [o.lo, o.hi];
  const end = outcomeValue(b, o, units);
  if (outcomeValue(a, o, units) === end) return end;
  if (cross || o.unit === "m" || o.unit === "") return `${outcomeValue(a, o, units)} to ${end}`;
  return `${number(inRecordUnit(sided ? Math.abs(a) : a, o.unit, units), o.unit === "cm" ? 1 : o.decimals)} to ${end}`;
}

/** So many layers. */
export const layersOf = (n: number) => (n === 1 ? "1 layer" : `${n} layers`);

/** One difference between two set-ups in words. */
export function changeWords(c: Omit<Change, "hard">, units: Units): string {
  if (c.knob === "sheet") return "another sheet";
  if (c.knob === "written") return `${c.to} ${c.to === 1 ? "place" : "places"} written anew`;
  return `${c.label} ${knobValue(c.from, c.unit, units)} → ${knobValue(c.to, c.unit, units)}`;
}

/** A sheet by the name of its size, or by its measures. */
export const sizeWords = (s: SheetSpec, size: string, units: Units) =>
  size || sheetSize(s.width_mm, s.height_mm, units);
