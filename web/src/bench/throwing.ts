import { useSyncExternalStore } from "react";
import type { Throwing } from "../api/client";

// How a person throws stays the same from build to build, so it is kept on this device.

const first: Throwing = {
  throw: { speed_ms: 6, angle_deg: 0, height_m: 1.6, bank_deg: 0 },
  room: {},
  hand: "adult",
  softening: false,
};
const place = "tussock-throwing";

function load(): Throwing {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? "null") as Partial<Throwing> | null;
    return { ...first, ...kept, throw: { ...first.throw, ...kept?.throw }, room: { ...kept?.room } };
  } catch {
    return first;
  }
}

let now = load();
const watchers = new Set<() => void>();

function set(next: Throwing) {
  now = next;
  try {
    localStorage.setItem(place, JSON.stringify(next));
  } catch {
    // A browser that keeps nothing starts afresh next time.
  }
  for (const w of watchers) w();
}

/** How it is thrown, and how to change that. */
export function useThrowing(): [Throwing, (part: Partial<Throwing>) => void] {
  const how = useSyncExternalStore(
    (f) => {
      watchers.add(f);
      return () => watchers.delete(f);
    },
    () => now,
  );
  return [how, (part) => set({ ...now, ...part })];
}
