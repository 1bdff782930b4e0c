import type { QueryClient } from "@tanstack/react-query";
import { lazy, type ComponentType } from "react";
import { question } from "../api/queries";

// The shelf comes with the page; every other place is fetched when it is gone to, or when
// the page has nothing else to do.

const fetches = {
  bench: () => import("./Bench"),
  bin: () => import("./Bin"),
  notKnown: () => import("./NotKnown"),
  packs: () => import("./Packs"),
  papers: () => import("./Papers"),
  settings: () => import("./Settings"),
  start: () => import("./Start"),
  study: () => import("./Study"),
  palette: () => import("../parts/Palette"),
  keys: () => import("../parts/ShortcutList"),
  told: () => import("sonner"),
};

type Props<T> = T extends ComponentType<infer P> ? P : never;

function lazily<M, K extends keyof M>(fetch: () => Promise<M>, name: K) {
  return lazy(async () => ({ default: (await fetch())[name] as ComponentType<Props<M[K]>> }));
}

export const Bench = lazily(fetches.bench, "Bench");
export const Bin = lazily(fetches.bin, "Bin");
export const NotKnown = lazily(fetches.notKnown, "NotKnown");
export const Packs = lazily(fetches.packs, "Packs");
export const Papers = lazily(fetches.papers, "Papers");
export const SettingsPlace = lazily(fetches.settings, "SettingsPlace");
export const Start = lazily(fetches.start, "Start");
export const Study = lazily(fetches.study, "Study");
export const Palette = lazily(fetches.palette, "Palette");
export const ShortcutList = lazily(fetches.keys, "ShortcutList");

/** Begins to fetch the place of an address, and what it asks for, before anything is drawn. */
export function fetchPlace(path: string, queries: QueryClient) {
  const [, place = "", id = ""] = path.split("/");
  const known: Record<string, keyof typeof fetches> = {
    bench: "bench",
    bin: "bin",
    packs: "packs",
    papers: "papers",
    settings: "settings",
    start: "start",
    study: "study",
  };
  const at = known[place];
  if (at) void fetches[at]();
  // Who shows it says what went wrong with it.
  const unsaid = () => undefined;
  queries.query(question.settings()).catch(unsaid);
  queries.query(question.patterns()).catch(unsaid);
  queries.query(question.moves()).catch(unsaid);
  if (place === "") {
    queries.query(question.builds()).catch(unsaid);
    queries.query(question.studies()).catch(unsaid);
  }
  if (place === "bench" && Number(id) > 0) {
    queries
      .query(question.build(Number(id)))
      .then((b) => queries.query(question.replay(b.pattern, b.setup)))
      .catch(unsaid);
  }
}

/** Fetches the other places when the page has nothing else to do. */
export function fetchTheRest() {
  const rest = () => Object.values(fetches).forEach((f) => void f());
  const timer = setTimeout(() => {
    if ("requestIdleCallback" in window) requestIdleCallback(rest);
    else rest();
  }, 2500);
  return () => clearTimeout(timer);
}

export const Toaster = lazily(fetches.told, "Toaster");
