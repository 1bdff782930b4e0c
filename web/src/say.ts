// Sentences of the engine carry their quantities between marks, ⟨value|unit|decimals⟩;
// this puts them into the person's units. internal/say does the same in Go, and a test
// holds both to the same cases.

export type Units = "mm" | "in";

const mmPerInch = 25.4;
/** Below this an inch ruler shows nothing; below the next, sixteenths are too coarse. */
const hair = mmPerInch / 32;
const fine = mmPerInch / 4;

/** A number with at most the given decimals, no zeros at its end, no minus before nothing. */
export function decimal(v: number, decimals: number): string {
  // 6.35 is stored a hair below itself; people expect 6.4.
  const s = (Math.abs(v) + 1e-9).toFixed(decimals);
  const short = s.includes(".") ? s.replace(/\.?0+$/, "") : s;
  return v < 0 && short !== "0" ? `−${short}` : short;
}

/** Inches as a fraction to 1/16, such as 8 1/2. */
export function sixteenths(mm: number): string {
  const n = Math.round((Math.abs(mm) / mmPerInch) * 16);
  const sign = mm < 0 && n > 0 ? "−" : "";
  const whole = Math.floor(n / 16);
  let top = n % 16;
  let bottom = 16;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  if (top === 0) return sign + String(whole);
  return `${sign}${whole > 0 ? `${whole} ` : ""}${top}/${bottom}`;
}

function feet(mm: number): string {
  const n = Math.round(Math.abs(mm) / mmPerInch);
  return `${mm < 0 && n > 0 ? "−" : ""}${Math.floor(n / 12)} ft ${n % 12} in`;
}

/** Values of one quantity, all in one way, and the unit behind the last. */
function rendered(units: Units, values: number[], unit: string, decimals: number): [string[], string] {
  if (units === "mm") return [values.map((v) => decimal(unit === "cm" ? v * 100 : v, decimals)), unit];
  const mm = values.map((v) => v * (unit === "mm" ? 1 : 1000));
  const least = Math.min(...mm.filter((v) => v !== 0).map(Math.abs));
  if (unit === "m") return [mm.map(feet), ""];
  if (mm.length === 1 && least < hair) {
    let d = Math.max(decimals, 1);
    while (d < 3 && decimal(mm[0] ?? 0, d) === "0") d++;
    return [[`a hair, ${decimal(mm[0] ?? 0, d)}`], "mm"];
  }
  if (least < mmPerInch / 16 || (decimals > 0 && least < fine))
    return [mm.map((v) => decimal(v / mmPerInch, 2)), "in"];
  return [mm.map(sixteenths), "in"];
}

function shown(units: Units, value: string, unit: string, decimals: number): string {
  const plus = value.startsWith("+") ? "+" : "";
  const bare = value.slice(plus.length);
  const [sign, between] = bare.includes("..")
    ? ["..", " to "]
    : bare.includes("x")
      ? ["x", " × "]
      : ["\n", ""];
  const values = bare.split(sign).map(Number);
  const [words, name] = rendered(units, values, unit, decimals);
  return (values[0] === 0 ? "" : plus) + words.join(between) + (name ? ` ${name}` : "");
}

/** A text with its quantities in the person's units. */
export function said(text: string, units: Units): string {
  if (!text.includes("⟨")) return text;
  return text.replace(/⟨([^|⟩]+)\|([a-z0-9]+)\|(\d)⟩/g, (_, value: string, unit: string, decimals: string) =>
    shown(units, value, unit, Number(decimals)),
  );
}
