import type { Settings } from "./client";

const key = "tussock-settings";

/** What a guest has chosen on this device: the settings of the house stay as they are. */
export function ownSettings(): Partial<Settings> {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Settings>;
  } catch {
    return {}; // what is kept there is not ours
  }
}

export const keepOwnSettings = (s: Settings) => localStorage.setItem(key, JSON.stringify(s));
