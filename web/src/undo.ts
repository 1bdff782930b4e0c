import type { QueryClient } from "@tanstack/react-query";
import { api, speak, type PaperInput, type Settings, type TrialInput } from "./api/client";
import type { Moves } from "./api/moves";
import { keepOwnSettings } from "./api/own";
import { changed, know, question } from "./api/queries";
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
  | { do: "settings"; settings: Settings; own: boolean };

async function run(b: Back, queries: QueryClient): Promise<unknown> {
  switch (b.do) {
    case "bin build":
      return api.binBuild(b.id);
    case "restore build":
      return api.restoreBuild(b.id);
    case "rename build":
      return api.rename(b.id, b.name);
    case "fold to":
      return api.keepStep(b.id, b.step);
    case "move":
      // On what lies there now: what others have moved since stays.
      return api.moveDraft(b.id, { ...b.moves, version: (await api.build(b.id)).version });
    case "withdraw tweak":
      return api.withdrawTweak(b.id, b.no);
    case "bin trial":
      return api.binTrial(b.id);
    case "restore trial":
      return api.restoreTrial(b.id);
    case "change trial":
      return api.changeTrial(b.id, b.trial);
    case "bin paper":
      return api.binPaper(b.id);
    case "restore paper":
      return api.restorePaper(b.id);
    case "change paper":
      return api.changePaper(b.id, b.paper);
    case "settings":
      if (b.own) keepOwnSettings(b.settings);
      else await api.setSettings(b.settings);
      speak(b.settings.units);
      know.settings(queries, () => b.settings);
      return undefined;
  }
}

interface Undoable {
  key: number;
  label: string;
  back: Back[];
}

// What can be taken back in this window, newest last. It outlives a reload; everything
// taken away lies in the bin as well, so nothing depends on this list.
const place = "tussock-undo";
const most = 200;

function kept(): Undoable[] {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? "[]") as Undoable[];
  } catch {
    return []; // what is kept there is not ours
  }
}

function keep(all: Undoable[]) {
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

// One after the other, however fast the key is pressed.
let going: Promise<unknown> = Promise.resolve();

function take(key?: number) {
  going = going.then(async () => {
    const all = kept();
    const entry = key === undefined ? all.at(-1) : all.find((u) => u.key === key);
    if (!entry || !client) {
      toast(key === undefined ? "There is nothing to undo." : "This is undone already.");
      return;
    }
    keep(all.filter((u) => u !== entry));
    try {
      for (const b of entry.back) await run(b, client);
      toast(`Undone: ${entry.label}`);
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be undone; look in the bin.");
    }
    await changed.everything(client);
  });
  return going;
}

/** Undoes the newest change. */
export function undoLast() {
  void take();
}

/** The settings as they are known, to go back to. */
export const settingsNow = (queries: QueryClient) => queries.getQueryData(question.settings().queryKey);
