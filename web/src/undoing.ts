import type { QueryClient } from "@tanstack/react-query";
import { api, speak } from "./api/client";
import { keepOwnSettings } from "./api/own";
import { changed, know } from "./api/queries";
import { toast } from "./toast";
import { keep, kept, type Back } from "./undo";

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
    case "bin pack":
      return api.binPack(b.pack);
    case "restore pack":
      return api.restorePack(b.pack);
    case "change pack":
      return api.changePack(b.pack);
    case "settings":
      if (b.own) keepOwnSettings(b.settings);
      else await api.setSettings(b.settings);
      speak(b.settings.units);
      know.settings(queries, () => b.settings);
      return undefined;
  }
}

// One after the other, however fast the key is pressed.
let going: Promise<unknown> = Promise.resolve();

/** Takes a change back: one by its key, or the newest. */
export function take(client: QueryClient, key?: number) {
  going = going.then(async () => {
    const all = kept();
    const entry = key === undefined ? all.at(-1) : all.find((u) => u.key === key);
    if (!entry) {
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
