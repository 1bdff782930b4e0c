import type { QueryClient } from "@tanstack/react-query";
import type { Pack, PaperInput, Settings, TrialInput } from "./api/client";
import type { Moves } from "./api/moves";
import { toast } from "./toast";

/** One thing that takes a change back, as it can be kept. */
export type Back =
  | { do: "bin build"; id: number }
  | { do: "restore build"; id: number }
  | { do: "rename build"; id: number; name: string }
  | { do: "fold to"; id: number; step: number }
  | { do: "move"; id: number; moves: Omit<Moves, "version"> }
  | { do: "withdraw tweak"; id: number; no: number }
  | { do: "bin trial"; id: number }
  | { do: "restore trial"; id: number }
  | { do: "change trial"; id: number; trial: TrialInput }
  | { do: "bin paper"; id: number }
  | { do: "restore paper"; id: number }
  | { do: "change paper"; id: number; paper: PaperInput }
  | { do: "bin pack"; pack: string }
  | { do: "restore pack"; pack: string }
  | { do: "change pack"; pack: Pack }
  | { do: "settings"; settings: Settings; own: boolean };

export interface Undoable {
  key: number;
  label: string;
  back: Back[];
}

// What can be taken back in this window, newest last. It outlives a reload; everything
// taken away lies in the bin as well, so nothing depends on this list.
const place = "tussock-undo";
const most = 200;

/** All that can be taken back, newest last. */
export function kept(): Undoable[] {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? "[]") as Undoable[];
  } catch {
    return []; // what is kept there is not ours
  }
}

export function keep(all: Undoable[]) {
  try {
    sessionStorage.setItem(place, JSON.stringify(all.slice(-most)));
  } catch {
    // A browser that keeps nothing has the bin.
  }
}

let client: QueryClient | undefined;

/** Says with what the page is brought up to date after an undo. */
export const undoFor = (queries: QueryClient) => (client = queries);

/** Notes a change that can be undone without saying so: it is seen anyway. */
export function noteUndo(label: string, ...back: Back[]): number {
  const all = kept();
  const key = (all.at(-1)?.key ?? 0) + 1;
  keep([...all, { key, label, back }]);
  return key;
}

/** Notes a change that can be undone and says so. */
export function offerUndo(label: string, ...back: Back[]) {
  const key = noteUndo(label, ...back);
  toast(label, { action: { label: "Undo", onClick: () => void take(key) } });
}

// What undoes comes when something is undone.
async function take(key?: number) {
  if (client) await (await import("./undoing")).take(client, key);
}

/** Undoes the newest change. */
export function undoLast() {
  void take();
}
