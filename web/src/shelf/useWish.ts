import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { sheetInput, type ShelfWish } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { useUnits } from "../settings";
import { parseLength } from "../units";

/** What is wished for, as the address holds it, and how to change it. */
export function useWish(): {
  wish: ShelfWish;
  asked: boolean;
  get: (name: string) => string;
  set: (part: Record<string, string>) => void;
} {
  const [search, setSearch] = useSearchParams();
  const plain = usePlainPaper();
  const units = useUnits();
  const papers = useQuery(question.papers()).data;
  const get = (name: string) => search.get(name) ?? "";
  const set = (part: Record<string, string>) => {
    const next = new URLSearchParams(search);
    for (const [k, v] of Object.entries(part)) {
      if (v) next.set(k, v);
      else next.delete(k);
    }
    setSearch(next, { replace: true });
  };
  const chosen = papers?.find((p) => String(p.id) === get("paper"));
  const [w, h] = [parseLength(get("w"), units), parseLength(get("h"), units)];
  const sheet =
    get("paper") === "typed" && w !== undefined && h !== undefined
      ? { ...plain, width_mm: w, height_mm: h }
      : chosen?.sheet;
  const wish: ShelfWish = {
    ...(sheet ? { paper: sheetInput(sheet) } : {}),
    ...(get("only") ? { bare: true, have: get("have").split(",").filter(Boolean) } : {}),
    ...(get("minutes") ? { minutes: Number(get("minutes")) } : {}),
    ...(get("layers") ? { layers: Number(get("layers")) } : {}),
    ...(get("for") ? { audience: get("for") } : {}),
    ...(get("moves") ? { moves: get("moves") } : {}),
    ...(get("purpose") ? { purpose: get("purpose") as "play" | "show" } : {}),
  };
  return { wish, asked: Object.keys(wish).length > 0, get, set };
}
