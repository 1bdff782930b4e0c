import { useQueryClient } from "@tanstack/react-query";
import { toast } from "../toast";
import { api, paperInput, type Paper, type SheetInput } from "../api/client";
import { offerUndo, type Back } from "../undo";
import { changed } from "../api/queries";

export interface Piece {
  width_mm: number;
  height_mm: number;
}

/** So many of each size, the sizes told once. */
function counted(pieces: Piece[]) {
  const all = new Map<string, Piece & { count: number }>();
  for (const p of pieces) {
    const key = `${p.width_mm.toFixed(2)} ${p.height_mm.toFixed(2)}`;
    const same = all.get(key);
    if (same) same.count += 1;
    else all.set(key, { width_mm: p.width_mm, height_mm: p.height_mm, count: 1 });
  }
  return [...all.values()];
}

/** What makes a drawer what it was. */
function backTo(before: Paper[], after: Paper[]): Back[] {
  return after.flatMap((p): Back[] => {
    const was = before.find((q) => q.id === p.id);
    if (!was) return [{ do: "bin paper", id: p.id }];
    return was.left === p.left ? [] : [{ do: "change paper", id: p.id, paper: paperInput(was) }];
  });
}

/** Puts what was cut off into the drawer, and says so. */
export function useKeepLeftovers() {
  const queries = useQueryClient();
  return async (
    of: string,
    sheet: SheetInput | undefined,
    pieces: Piece[],
    cut?: { paper_id: number; used: number },
  ): Promise<boolean> => {
    try {
      const before = await api.papers();
      await api.addLeftovers(of, sheet, counted(pieces), cut);
      await changed.papers(queries);
      offerUndo(
        pieces.length === 1
          ? "The leftover is in the drawer"
          : `${pieces.length} leftovers are in the drawer`,
        ...backTo(before, await api.papers()),
      );
      return true;
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "They could not be kept.");
      return false;
    }
  };
}
