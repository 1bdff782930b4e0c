import { useMemo, useSyncExternalStore } from "react";
import { useSettings } from "../settings";
import type { Moving } from "../api/client";

// How a person tries toys stays the same from build to build, so it is kept on this device.

export type Conditions = Record<string, number>;

const place = "tussock-conditions";

function load(): Record<string, Conditions> {
  try {
    return (JSON.parse(localStorage.getItem(place) ?? "null") as Record<string, Conditions> | null) ?? {};
  } catch {
    return {};
  }
}

let now = load();
const watchers = new Set<() => void>();
const filled = new WeakMap<Record<string, Conditions>, Map<string, Conditions>>();

/** All conditions of a way of moving: those kept, and the others at their defaults. */
function full(all: Record<string, Conditions>, way: Moving): Conditions {
  const known = filled.get(all) ?? new Map<string, Conditions>();
  filled.set(all, known);
  const there = known.get(way.name);
  if (there) return there;
  const kept = all[way.name] ?? {};
  const out = Object.fromEntries(
    way.conditions.map((c) => {
      const v = kept[c.name] ?? c.default;
      const fits = c.options.length > 0 ? c.options.some((o) => o.value === v) : v >= c.min && v <= c.max;
      return [c.name, fits || ((c.none || c.own !== undefined) && v === 0) ? v : c.default];
    }),
  );
  known.set(way.name, out);
  return out;
}

/** How it is tried, and how to change that. */
export function useConditions(way: Moving): [Conditions, (part: Conditions) => void] {
  const all = useSyncExternalStore(
    (f) => {
      watchers.add(f);
      return () => watchers.delete(f);
    },
    () => now,
  );
  const change = (part: Conditions) => {
    now = { ...now, [way.name]: { ...full(now, way), ...part } };
    try {
      localStorage.setItem(place, JSON.stringify(now));
    } catch {
      // A browser that keeps nothing starts afresh next time.
    }
    for (const w of watchers) w();
  };
  const own = useOwn(way);
  const plain = full(all, way);
  const how = useMemo(
    () => (Object.keys(own.values).length > 0 ? { ...plain, ...own.values } : plain),
    [plain, own.values],
  );
  return [
    how,
    (part) => {
      own.keep(part);
      change(part);
    },
  ];
}

/** Conditions that a person's settings hold for all toys: of which size is the finger. */
function useOwn(way: Moving) {
  const { settings, change } = useSettings();
  const held = useMemo(() => way.conditions.filter((c) => c.setting !== undefined), [way]);
  const measured = settings.finger_mm ?? 0;
  const values = useMemo(
    () => Object.fromEntries(held.filter(() => measured > 0).map((c) => [c.name, measured])),
    [held, measured],
  );
  const keep = (part: Conditions) => {
    for (const c of held) {
      const v = part[c.name];
      if (v !== undefined && v !== measured) change({ finger_mm: v });
    }
  };
  return { values, keep };
}

/** The conditions that are kept with every trial, as they are called. */
export function logged(way: Moving, how: Conditions): Record<string, string> {
  return Object.fromEntries(
    way.conditions
      .filter((c) => c.logged)
      .map((c) => [c.name, c.options.find((o) => o.value === how[c.name])?.label ?? String(how[c.name])]),
  );
}
