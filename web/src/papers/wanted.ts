import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem, type SizeInput, type Want, type Way, type Ways } from "../api/client";
import { question } from "../api/queries";
import { useUnits } from "../settings";
import { parseLength, parseNumber } from "../units";
import { typedLength } from "./typedSize";

/** What is typed about a wanted sheet; what is left empty is the server's to choose. */
export interface Wanted {
  kind: Want["kind"];
  width: string;
  height: string;
  ratio: string;
  n: string;
  margin: Record<"left" | "right" | "bottom" | "top", string>;
}

const fresh: Wanted = {
  kind: "square",
  width: "",
  height: "",
  ratio: "1.414",
  n: "5",
  margin: { left: "10", right: "0", bottom: "0", top: "0" },
};

/** The sheet wanted and the ways to it, from the sheet at hand. */
export function useWanted(
  have: SizeInput | undefined,
  gsm: number,
  thickness: number,
  first?: Want,
): {
  wanted: Wanted;
  set: (part: Partial<Wanted>) => void;
  take: (w: Want) => void;
  cutFree: boolean;
  setCutFree: (v: boolean) => void;
  want: Want | undefined;
  ways: Ways | undefined;
  way: Way | undefined;
  problem: string;
  chosen: number;
  choose: (i: number) => void;
} {
  const units = useUnits();
  const filled = (w: Want): Wanted => ({
    ...fresh,
    kind: w.kind,
    width: w.width_mm ? typedLength(w.width_mm, units) : "",
    height: w.height_mm ? typedLength(w.height_mm, units) : "",
    ratio: w.ratio ? String(Math.round(w.ratio * 1e6) / 1e6) : fresh.ratio,
    n: w.n ? String(w.n) : fresh.n,
  });
  const [wanted, setWanted] = useState<Wanted>(() => (first ? filled(first) : fresh));
  // Another sheet in question suggests another want.
  const suggested = JSON.stringify(first);
  const [followed, follow] = useState(suggested);
  if (followed !== suggested) {
    follow(suggested);
    if (first) setWanted(filled(first));
  }
  const [cutFree, setCutFree] = useState(false);
  const [chosen, choose] = useState(0);
  const want = asWant(wanted, units);
  const found = useQuery(
    question.ways(have, typeof want === "string" ? undefined : want, cutFree, gsm, thickness),
  );
  const refused = found.error instanceof Problem ? found.error.message : "";
  const ways = typeof want === "string" || refused ? undefined : found.data;
  return {
    wanted,
    set: (part) => {
      setWanted((w) => ({ ...w, ...part }));
      choose(0);
    },
    take: (w) => {
      setWanted(filled(w));
      choose(0);
    },
    cutFree,
    setCutFree,
    want: typeof want === "string" ? undefined : want,
    ways,
    way: ways?.ways[chosen] ?? ways?.ways[0],
    problem: typeof want === "string" ? want : refused,
    chosen,
    choose,
  };
}

/** For the API, or a sentence about what is no number. */
function asWant(w: Wanted, units: "mm" | "in"): Want | string {
  const no = (text: string) =>
    `“${text}” is no length; write for example ${units === "mm" ? "150, or 15cm" : "6 1/2, or 150 mm"}`;
  const length = (text: string) => parseLength(text, units);
  switch (w.kind) {
    case "square": {
      if (w.width.trim() === "") return { kind: "square" };
      const width_mm = length(w.width);
      return width_mm === undefined ? no(w.width) : { kind: "square", width_mm };
    }
    case "strip": {
      const width_mm = length(w.width);
      return width_mm === undefined
        ? w.width
          ? no(w.width)
          : "Type how wide the strip is"
        : { kind: "strip", width_mm };
    }
    case "size": {
      const [width_mm, height_mm] = [length(w.width), length(w.height)];
      if (width_mm === undefined) return w.width ? no(w.width) : "Type the size that is wanted";
      if (height_mm === undefined) return w.height ? no(w.height) : "Type the height that is wanted";
      return { kind: "size", width_mm, height_mm };
    }
    case "ratio": {
      const ratio = parseNumber(w.ratio);
      return ratio === undefined
        ? `“${w.ratio}” is no number; write for example 1.414, or 4/3`
        : { kind: "ratio", ratio };
    }
    case "ngon": {
      const n = parseNumber(w.n);
      return n === undefined || !Number.isInteger(n)
        ? `“${w.n}” is no count of corners; write 3 to 8`
        : { kind: "ngon", n };
    }
    case "margin": {
      const m = Object.entries(w.margin).map(
        ([edge, text]) => [`${edge}_mm`, text.trim() === "" ? 0 : length(text), text] as const,
      );
      const wrong = m.find(([, v]) => v === undefined);
      if (wrong) return no(wrong[2]);
      return { kind: "margin", ...Object.fromEntries(m.map(([k, v]) => [k, v ?? 0])) };
    }
    default:
      return { kind: w.kind };
  }
}
