import type { Setup, SheetSpec, Written } from "./client";

/** What a hand has moved and not kept yet, and the version of the build that it saw. */
export interface Moves {
  version: number;
  knobs: Record<string, number>;
  sheet?: SheetSpec;
  recipes?: Record<string, number>;
  /** Places that were written in; an empty mark where nothing stands any more. */
  written?: Written;
}

/** Places that differ, as they are afterwards. */
function rewritten(from: Written, to: Written): Written {
  const places = [...new Set([...Object.keys(from), ...Object.keys(to)])];
  return Object.fromEntries(places.filter((p) => !same(from[p], to[p])).map((p) => [p, to[p] ?? {}]));
}

/** What is written with changes on it. */
function over(from: Written | undefined, change: Written): Written {
  return Object.fromEntries(
    Object.entries({ ...from, ...change }).filter(([, m]) => Object.values(m).some(Boolean)),
  );
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What differs between two set-ups. */
export function movesOf(from: Setup, to: Setup, version: number): Moves {
  const knobs = Object.fromEntries(Object.entries(to.knobs).filter(([k, v]) => from.knobs[k] !== v));
  const out: Moves = { version, knobs };
  if (!same(from.sheet, to.sheet)) out.sheet = to.sheet;
  if (!same(from.recipes ?? {}, to.recipes ?? {})) out.recipes = to.recipes ?? {};
  const written = rewritten(from.written ?? {}, to.written ?? {});
  if (Object.keys(written).length > 0) out.written = written;
  return out;
}

/** Moves upon moves: the older version counts, since nothing newer was seen. */
export function onTop(first: Moves | null, then: Moves): Moves {
  if (!first) return then;
  const written = first.written || then.written ? { written: { ...first.written, ...then.written } } : {};
  return { ...first, ...then, ...written, version: first.version, knobs: { ...first.knobs, ...then.knobs } };
}

/** A set-up with what was moved on it. */
export function laid(setup: Setup, m: Moves | null): Setup {
  if (!m) return setup;
  const recipes = m.recipes ?? setup.recipes;
  return {
    sheet: m.sheet ?? setup.sheet,
    knobs: { ...setup.knobs, ...m.knobs },
    ...(recipes ? { recipes } : {}),
    ...(m.written || setup.written ? { written: over(setup.written, m.written ?? {}) } : {}),
  };
}

export const isNothing = (m: Moves) =>
  Object.keys(m.knobs).length === 0 &&
  m.sheet === undefined &&
  m.recipes === undefined &&
  m.written === undefined;

/** What is left of moves once others were kept; it has seen the version that these made. */
export function without(m: Moves | null, kept: Moves, version: number): Moves | null {
  if (!m) return null;
  const out: Moves = {
    version,
    knobs: Object.fromEntries(Object.entries(m.knobs).filter(([k, v]) => kept.knobs[k] !== v)),
  };
  if (m.sheet && !same(m.sheet, kept.sheet)) out.sheet = m.sheet;
  if (m.recipes && !same(m.recipes, kept.recipes)) out.recipes = m.recipes;
  if (m.written) {
    const left = Object.entries(m.written).filter(([p, mark]) => !same(mark, kept.written?.[p]));
    if (left.length > 0) out.written = Object.fromEntries(left);
  }
  return isNothing(out) ? null : out;
}

/** What takes moves back to where a set-up had it. */
export function back(m: Moves, was: Setup): Omit<Moves, "version"> {
  const knobs = Object.fromEntries(
    Object.keys(m.knobs).flatMap((k) => (was.knobs[k] === undefined ? [] : [[k, was.knobs[k]]])),
  );
  return {
    knobs,
    ...(m.sheet ? { sheet: was.sheet } : {}),
    ...(m.recipes ? { recipes: was.recipes ?? {} } : {}),
    ...(m.written
      ? { written: Object.fromEntries(Object.keys(m.written).map((p) => [p, was.written?.[p] ?? {}])) }
      : {}),
  };
}
