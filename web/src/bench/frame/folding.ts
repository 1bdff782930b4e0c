import { useQuery } from "@tanstack/react-query";
import { useCallback, useSyncExternalStore } from "react";
import { type Care } from "../../api/client";
import { question } from "../../api/queries";
import type { Ready } from "./useBench";

/** The care that each step of a build needs; empty until it is known. */
export function useCare({ bench, pattern, build, good }: Ready): Care[] {
  // What is saved, not what a knob passes through on its way.
  const found = useQuery({
    ...question.care(pattern, build.setup),
    enabled: good.ok && !bench.moving,
  });
  return found.data ?? none;
}

const none: Care[] = [];

/** A step looked at more closely: hidden layers, likely mistakes, the crease map. */
export function useLook({ pattern, setup, good }: Ready, step: number, asked: boolean) {
  return useQuery({ ...question.look(pattern.id, step, setup), enabled: asked && good.ok }).data;
}

/** The paper half-way through a step, and its other side. */
export function useGlance({ pattern, setup, good }: Ready, step: number) {
  return useQuery({
    ...question.glance(pattern.id, step, setup),
    enabled: good.ok && step <= good.steps.length,
  }).data;
}

/** How a person likes to see steps; kept on this device. */
export interface Seeing {
  mirror: boolean;
  turn: "drawn" | "away" | "toward";
  xray: boolean;
  /** Lengths as parts of the sheet, where they are simple ones. */
  parts: boolean;
  /** Few words, for those who know the folds. */
  brief: boolean;
}

const key = "tussock-seeing";
const plain: Seeing = { mirror: false, turn: "drawn", xray: false, parts: false, brief: false };
const watchers = new Set<() => void>();
let now: Seeing | undefined;

function seeing(): Seeing {
  if (!now) {
    try {
      now = { ...plain, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Seeing>) };
    } catch {
      now = plain; // what is kept there is not ours
    }
  }
  return now;
}

export function useSeeing(): [Seeing, (part: Partial<Seeing>) => void] {
  const value = useSyncExternalStore((f) => {
    watchers.add(f);
    return () => watchers.delete(f);
  }, seeing);
  const change = useCallback((part: Partial<Seeing>) => {
    now = { ...seeing(), ...part };
    localStorage.setItem(key, JSON.stringify(now));
    watchers.forEach((f) => f());
  }, []);
  return [value, change];
}

/** How a picture is turned and mirrored, for CSS. */
export function seen(s: Seeing, awayDeg: number): string | undefined {
  const deg = s.turn === "away" ? awayDeg : s.turn === "toward" ? awayDeg + 180 : 0;
  if (!s.mirror && deg === 0) return undefined;
  return `${s.mirror ? "scaleX(-1) " : ""}rotate(${deg}deg)`;
}
