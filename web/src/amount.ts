// Numbers as people type them: 12, 12,5, 8 1/2, 8½, with or without a unit (4 m, 15ft,
// 21cm, 1'3"). One reader for every field.

/** Millimetres in the units of length. */
const mmIn: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

/** What people write for a unit, by what a field calls it. */
const names: Record<string, string[]> = {
  mm: ["mm", "millimetre", "millimetres", "millimeter", "millimeters"],
  cm: ["cm", "centimetre", "centimetres", "centimeter", "centimeters"],
  m: ["m", "metre", "metres", "meter", "meters"],
  in: ["in", "inch", "inches", '"'],
  ft: ["ft", "foot", "feet", "'"],
  "°": ["°", "deg", "degree", "degrees"],
  s: ["s", "sec", "second", "seconds"],
  g: ["g", "gram", "grams"],
  "g/m²": ["g/m²", "gsm", "g"],
  "m/s": ["m/s"],
  "%": ["%", "percent", "per cent"],
};

const halves: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};

/** One spelling for what keyboards write differently. */
const plain = (text: string) =>
  text
    .trim()
    .replace(/[−–]/g, "-")
    .replace(/m2$/i, "m²")
    .replace(/[’′]/g, "'")
    .replace(/[”″]|''/g, '"')
    .replace(/\s*([½¼¾⅛⅜⅝⅞])/g, (_, f: string) => ` ${halves[f] ?? ""}`)
    .trim();

/** A number without sign and unit; undefined when it is none. */
function bare(text: string): number | undefined {
  const t = text.trim();
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(t);
  if (fraction) {
    const [, whole, top, bottom] = fraction;
    return Number(bottom) === 0 ? undefined : Number(whole ?? 0) + Number(top) / Number(bottom);
  }
  return /^(\d+[.,]?\d*|[.,]\d+)$/.test(t) ? Number(t.replace(",", ".")) : undefined;
}

const unitCalled = (word: string) => Object.keys(names).find((u) => names[u]?.includes(word.toLowerCase()));

/**
 * What was typed, in the field's own unit; a number without a unit is in that. Another
 * length is turned into it. undefined when it is no number, or one of something else.
 */
export function parse(text: string, unit: string): number | undefined {
  const t = plain(text);
  const sign = t.startsWith("-") ? -1 : 1;
  const parts = [...t.replace(/^[-+]/, "").matchAll(/([\d\s.,/]+)\s*([^\d\s.,]*)/gy)];
  const whole = parts.map((p) => p[0]).join("");
  if (parts.length === 0 || parts.length > 2 || whole.length !== t.replace(/^[-+]/, "").length)
    return undefined;
  let sum = 0;
  let last = "";
  for (const [, digits = "", word = ""] of parts) {
    const v = bare(digits);
    let u = word === "" ? unit : unitCalled(word);
    if (word === "g" && unit === "g/m²") u = unit;
    // After feet come inches, and nothing else is told in two parts.
    if (parts.length === 2 && last !== "") {
      if (last !== "ft" || (word !== "" && u !== "in")) return undefined;
      u = "in";
    }
    if (v === undefined || u === undefined) return undefined;
    if (parts.length === 2 && last === "" && u !== "ft") return undefined;
    const [from, to] = [mmIn[u], mmIn[unit]];
    if (u !== unit && (from === undefined || to === undefined)) return undefined;
    sum += u === unit || from === undefined || to === undefined ? v : (v * from) / to;
    last = u;
  }
  return sign * sum;
}

/** Whether this may become a number of that unit when more is typed. */
export function mayBecome(text: string, unit: string): boolean {
  const m = /^[-+]?[\d\s.,/]*([^\d\s.,]*)(?:[\d\s.,/]+([^\d\s.,]*))?$/.exec(plain(text));
  if (!m) return false;
  const known = Object.entries(names).flatMap(([u, all]) =>
    u === unit || (mmIn[u] !== undefined && mmIn[unit] !== undefined) ? all : [],
  );
  return [m[1] ?? "", m[2] ?? ""].every((w) => known.some((n) => n.startsWith(w.toLowerCase())) || w === "");
}

/** What a number with a unit or a fraction was taken for; undefined where that is plain. */
export function understood(text: string, unit: string): string | undefined {
  if (/^\s*[-−]?\d*[.,]?\d*\s*$/.test(text)) return undefined;
  const v = parse(text, unit);
  if (v === undefined) return undefined;
  const shown = String(Math.round(v * 1000) / 1000).replace("-", "−");
  return unit === "" ? `= ${shown}` : unit === "°" ? `= ${shown}°` : `= ${shown} ${unit}`;
}

/** A typed length in mm; one without a unit is in the person's. */
export function parseLength(text: string, units: "mm" | "in"): number | undefined {
  const v = parse(text, units);
  return v === undefined ? undefined : v * (mmIn[units] ?? 1);
}

/** A typed number that has no unit. */
export const parseNumber = (text: string): number | undefined => parse(text, "");
