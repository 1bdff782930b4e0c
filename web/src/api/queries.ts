import {
  keepPreviousData,
  queryOptions,
  skipToken,
  type QueryClient,
  type QueryFilters,
  type QueryKey,
} from "@tanstack/react-query";
import {
  api,
  type Build,
  type Clinic,
  type Me,
  type Pattern,
  type Replay,
  type Settings,
  type Setup,
  type Sharing,
  type SheetInput,
  type SheetSpec,
  type SizeInput,
  type Want,
} from "./client";

// Every question to the server, with its key: what it depends on, for how long an answer
// holds, and what makes it out of date. Nothing else names a key.

type Conditions = Record<string, number>;
type Slip = Parameters<typeof api.slip>[3];

/** Answers that depend on their question alone. */
const forEver = { staleTime: Infinity, retry: false } as const;
/** Heavy answers that are soon not looked at any more. */
const awhile = { ...forEver, gcTime: 60_000 } as const;
/** While the next answer is on its way the one before stands. */
const held = { placeholderData: keepPreviousData } as const;

/** A set-up without its last bends: these fold nothing, so what is known of the folds stays. */
function folded(pattern: Pattern, setup: Setup): Setup {
  const bends = new Set(pattern.knobs.filter((k) => k.implied).map((k) => k.name));
  const knobs = Object.entries(setup.knobs).filter(([name]) => !bends.has(name));
  return { ...setup, knobs: Object.fromEntries(knobs) };
}

/** What trials teach, and so changes when one does. */
const learnt = ["prediction", "sensitivity", "sweep", "clinic", "compare-sizes", "schools"];

export const question = {
  settings: () => queryOptions({ queryKey: ["settings"], queryFn: api.settings }),
  patterns: () => queryOptions({ queryKey: ["patterns"], queryFn: api.patterns, staleTime: Infinity }),
  studies: () => queryOptions({ queryKey: ["studies"], queryFn: api.studies, staleTime: Infinity }),
  study: (id: string) =>
    queryOptions({ queryKey: ["study", id], queryFn: () => api.study(id), staleTime: Infinity }),
  moves: () => queryOptions({ queryKey: ["moves"], queryFn: api.moves, staleTime: Infinity }),
  sizes: () => queryOptions({ queryKey: ["sizes"], queryFn: api.sizes, staleTime: Infinity }),
  plainPaper: () => queryOptions({ queryKey: ["plain-paper"], queryFn: api.plainPaper, staleTime: Infinity }),
  me: () => queryOptions({ queryKey: ["me"], queryFn: api.me, staleTime: Infinity }),
  copies: () => queryOptions({ queryKey: ["copies"], queryFn: api.copies, staleTime: 0 }),
  sharing: () => queryOptions({ queryKey: ["sharing"], queryFn: api.sharing, refetchInterval: 3000 }),
  bin: () => queryOptions({ queryKey: ["bin"], queryFn: api.bin, staleTime: 0 }),

  sift: (wish: Parameters<typeof api.sift>[0]) =>
    queryOptions({ queryKey: ["sift", wish], queryFn: () => api.sift(wish), ...held, retry: false }),
  bestSheets: (papers: number) =>
    queryOptions({ queryKey: ["papers", "best", papers], queryFn: api.bestSheets, ...awhile }),
  preview: (id: string) =>
    queryOptions({ queryKey: ["preview", id], queryFn: () => api.preview(id), ...awhile }),
  next: (b: { id: number; updated_at: string; trials: number }) =>
    queryOptions({
      queryKey: ["next", b.id, b.updated_at, b.trials],
      queryFn: () => api.next(b.id),
      ...awhile,
    }),
  builds: () => queryOptions({ queryKey: ["builds"], queryFn: api.builds, staleTime: 0 }),
  build: (id: number) =>
    queryOptions({ queryKey: ["build", id], queryFn: () => api.build(id), retry: false }),
  papers: () => queryOptions({ queryKey: ["papers"], queryFn: api.papers }),

  replay: (pattern: string | undefined, setup: Setup | undefined) =>
    queryOptions<Replay>({
      queryKey: ["replay", pattern, setup],
      queryFn: pattern && setup ? ({ signal }) => api.replay(pattern, setup, signal) : skipToken,
      ...held,
      ...awhile,
    }),
  care: (pattern: Pattern, setup: Setup) => {
    const folds = folded(pattern, setup);
    return queryOptions({
      queryKey: ["care", pattern.id, folds],
      queryFn: ({ signal }) => api.care(pattern.id, folds, "adult", signal),
      ...held,
      ...awhile,
    });
  },
  reach: (pattern: Pattern, setup: Setup) => {
    const folds = folded(pattern, setup);
    return queryOptions({
      queryKey: ["reach", pattern.id, folds],
      queryFn: ({ signal }) => api.reach(pattern.id, folds, signal),
      ...held,
      ...awhile,
    });
  },
  signs: () => queryOptions({ queryKey: ["signs"], queryFn: api.signs, ...forEver }),
  glance: (pattern: string, step: number, setup: Setup) =>
    queryOptions({
      queryKey: ["glance", pattern, step, setup],
      queryFn: () => api.glance(pattern, step, setup),
      ...awhile,
    }),
  look: (pattern: string, step: number, setup: Setup) =>
    queryOptions({
      queryKey: ["look", pattern, step, setup],
      queryFn: () => api.look(pattern, step, setup),
      ...awhile,
    }),
  motion: (pattern: string, step: number, setup: Setup, azimuth: number, elevation: number) =>
    queryOptions({
      queryKey: ["motion", pattern, step, setup, azimuth, elevation],
      queryFn: () => api.motion(pattern, step, setup, azimuth, elevation),
      // The same step from another side stands while it is turned.
      placeholderData: (old, query) => (query?.queryKey[2] === step ? old : undefined),
      ...awhile,
      gcTime: 30_000,
    }),
  whence: (pattern: string, setup: Setup, spot: { step: number; x: number; y: number } | null) =>
    queryOptions({
      queryKey: ["whence", pattern, setup, spot],
      queryFn: spot ? () => api.whence(pattern, setup, spot.step, spot.x, spot.y) : skipToken,
      ...forEver,
    }),
  placements: (pattern: string, step: number, setup: Setup) =>
    queryOptions({
      queryKey: ["placements", pattern, step, setup],
      queryFn: () => api.placements(pattern, step, setup),
      ...held,
      ...forEver,
    }),
  slip: (pattern: string, step: number, setup: Setup, slip: Slip | undefined) =>
    queryOptions({
      queryKey: ["slip", pattern, step, setup, slip],
      queryFn: slip ? () => api.slip(pattern, step, setup, slip) : skipToken,
      ...held,
      ...forEver,
    }),

  written: (pattern: string, setup: Setup) =>
    queryOptions({
      queryKey: ["written", pattern, setup],
      queryFn: () => api.written(pattern, setup),
      ...held,
      ...awhile,
    }),
  between: (pattern: string, setup: Setup, step: { from: number; to: number } | null) =>
    queryOptions({
      queryKey: ["between", pattern, setup, step],
      queryFn: step ? () => api.between(pattern, setup, step.from, step.to) : skipToken,
      ...awhile,
    }),
  packs: () => queryOptions({ queryKey: ["packs"], queryFn: api.packs }),
  pack: (id: string) => queryOptions({ queryKey: ["packs", id], queryFn: () => api.pack(id) }),

  levers: (pattern: string, setup: Setup, how: Conditions) =>
    queryOptions({
      queryKey: ["levers", pattern, setup, how],
      queryFn: () => api.levers(pattern, setup, how),
      ...held,
      ...forEver,
    }),
  prediction: (pattern: string, setup: Setup, how: Conditions, ghosts: Parameters<typeof api.predict>[3]) =>
    queryOptions({
      queryKey: ["prediction", pattern, setup, how, ghosts],
      queryFn: ({ signal }) => api.predict(pattern, setup, how, ghosts, signal),
      ...held,
      ...awhile,
    }),
  sensitivity: (pattern: string, setup: Setup, how: Conditions) =>
    queryOptions({
      queryKey: ["sensitivity", pattern, setup, how],
      queryFn: () => api.sensitivity(pattern, setup, how),
      ...held,
      ...forEver,
    }),
  sweep: (pattern: string, setup: Setup, how: Conditions, lever: string, second: string) =>
    queryOptions({
      queryKey: ["sweep", pattern, setup, how, lever, second],
      queryFn: () => api.sweep(pattern, setup, how, lever, second),
      ...held,
      ...forEver,
    }),
  clinic: (b: Build, how: Conditions) =>
    queryOptions<Clinic>({
      queryKey: ["clinic", b.id, b.updated_at, b.trials, how],
      queryFn: ({ signal }) => api.clinic(b.id, how, signal),
      retry: false,
    }),
  compareSizes: (b: Build, setup: Setup, how: Conditions) =>
    queryOptions({
      queryKey: ["compare-sizes", b.id, b.updated_at, b.trials, setup, how],
      queryFn: () => api.compareSizes(b.id, how),
      retry: false,
    }),
  schools: (b: Build, setup: Setup, how: Conditions) =>
    queryOptions({
      queryKey: ["schools", b.id, b.updated_at, b.trials, setup, how],
      queryFn: () => api.schools(b.id, how),
      retry: false,
    }),

  near: (size: SizeInput | undefined) =>
    queryOptions({
      queryKey: ["near", size],
      queryFn: size ? () => api.nearSizes(size) : skipToken,
      ...forEver,
    }),
  facts: (size: SizeInput | undefined) =>
    queryOptions({
      queryKey: ["facts", size],
      queryFn: size ? () => api.sheetFacts(size) : skipToken,
      retry: false,
    }),
  fit: (pattern: string, sheet: SheetInput | undefined, knobs: Record<string, number>) =>
    queryOptions({
      queryKey: ["fit", pattern, sheet, knobs],
      queryFn: sheet ? () => api.fit(pattern, sheet, knobs) : skipToken,
      ...held,
      ...forEver,
    }),
  ways: (
    have: SizeInput | undefined,
    want: Want | undefined,
    cutFree: boolean,
    gsm: number,
    thickness: number,
  ) =>
    queryOptions({
      queryKey: ["ways", have, want, cutFree, gsm, thickness],
      queryFn: have && want ? () => api.ways(have, want, cutFree, gsm, thickness) : skipToken,
      ...held,
      retry: false,
    }),
  /** The ways to the sheet of a build, from what it was got from. */
  origin: ({ from, gsm, thickness_mm }: SheetSpec) =>
    queryOptions({
      queryKey: ["origin", from, gsm, thickness_mm],
      queryFn: from
        ? () =>
            api.ways(
              { width: from.width_mm, height: from.height_mm, unit: "mm" },
              from.want,
              false,
              gsm,
              thickness_mm,
            )
        : skipToken,
      ...forEver,
    }),
  uses: (s: { width_mm: number; height_mm: number; gsm: number; thickness_mm: number }) =>
    queryOptions({
      queryKey: ["uses", s],
      queryFn: () => api.uses({ width: s.width_mm, height: s.height_mm, unit: "mm" }, s.gsm, s.thickness_mm),
      staleTime: Infinity,
    }),
  measured: (
    size: SizeInput | undefined,
    rising: number | undefined,
    falling: number | undefined,
    pattern: string,
  ) =>
    queryOptions({
      queryKey: ["measured", size, rising, falling, pattern],
      queryFn:
        size && rising !== undefined && falling !== undefined && (rising + falling > 0 || pattern !== "")
          ? () => api.measuredSheet(size.width, size.height, rising, falling, pattern)
          : skipToken,
      retry: false,
    }),
  measurePaper: (
    sheet: SizeInput | undefined,
    n: Partial<Record<"grams" | "sheets" | "high" | "pileSheets", number | undefined>>,
  ) =>
    queryOptions({
      queryKey: ["measure-paper", sheet, n],
      queryFn:
        sheet && (n.grams !== undefined || n.high !== undefined)
          ? () => api.measurePaper(sheet, n.grams ?? 0, n.sheets ?? 0, n.high ?? 0, n.pileSheets ?? 0)
          : skipToken,
      ...held,
      retry: false,
    }),
  divide: (
    sheet: SizeInput | undefined,
    what: Parameters<typeof api.divide>[1],
    part: number | undefined,
    of: number | undefined,
  ) =>
    queryOptions({
      queryKey: ["divide", sheet, what, part, of],
      queryFn:
        sheet && part !== undefined && of !== undefined ? () => api.divide(sheet, what, part, of) : skipToken,
      ...held,
      retry: false,
    }),
  sFold: (a: number | undefined, b: number | undefined, c: number | undefined) =>
    queryOptions({
      queryKey: ["s-fold", a, b, c],
      queryFn: a !== undefined && b !== undefined && c !== undefined ? () => api.sFold(a, b, c) : skipToken,
      retry: false,
    }),
  cuts: (
    order:
      | { ps: Parameters<typeof api.planCuts>[0]; qs: Parameters<typeof api.planCuts>[1]; k: number }
      | undefined,
  ) =>
    queryOptions({
      queryKey: ["cuts", order],
      queryFn: order ? () => api.planCuts(order.ps, order.qs, order.k) : skipToken,
      ...held,
      retry: false,
    }),
};

/**
 * Asks again after a change. A first answer that is still on its way is of before the
 * change, and would stand for the new one: it is let go.
 */
async function anew(q: QueryClient, which: QueryFilters) {
  await q.cancelQueries(which);
  await q.invalidateQueries(which);
}

/** What is no longer so, by what has happened. */
export const changed = {
  everything: (q: QueryClient) => anew(q, {}),
  builds: (q: QueryClient) => anew(q, { queryKey: question.builds().queryKey }),
  build: (q: QueryClient, id: number) => anew(q, { queryKey: question.build(id).queryKey }),
  packs: (q: QueryClient) => anew(q, { queryKey: question.packs().queryKey }),
  papers: (q: QueryClient) => anew(q, { queryKey: question.papers().queryKey }),
  settings: (q: QueryClient) => anew(q, { queryKey: question.settings().queryKey }),
  /** Sentences that are on the page were told in the units before. */
  units: (q: QueryClient) => anew(q, { predicate: (x) => x.queryKey[0] !== "settings" }),
  trials: (q: QueryClient) => anew(q, { predicate: (x) => learnt.includes(String(x.queryKey[0])) }),
};

/** What takes long and can wait while a dial moves. */
const patient = ["reach", "care", "clinic"];

/** Calls off what can wait: what the hand waits for comes first. */
export const callOff = (q: QueryClient) =>
  q.cancelQueries({ predicate: (x) => patient.includes(String(x.queryKey[0])) });

/**
 * Puts what is known already where it is asked for. An answer that is still on its way may be
 * of before, and would take its place: that is asked anew.
 */
function put(q: QueryClient, queryKey: QueryKey, set: () => void) {
  const asked = q.isFetching({ queryKey, exact: true }) > 0;
  set();
  if (asked) void anew(q, { queryKey, exact: true });
}

/** What is known already, from the answer to a change. */
export const know = {
  build: (q: QueryClient, b: Build) => {
    const { queryKey } = question.build(b.id);
    put(q, queryKey, () => q.setQueryData(queryKey, b));
  },
  me: (q: QueryClient, m: Me) => {
    const { queryKey } = question.me();
    put(q, queryKey, () => q.setQueryData(queryKey, m));
  },
  sharing: (q: QueryClient, s: Sharing) => {
    const { queryKey } = question.sharing();
    put(q, queryKey, () => q.setQueryData(queryKey, s));
  },
  settings: (q: QueryClient, change: (old: Settings | undefined) => Settings) => {
    const { queryKey } = question.settings();
    put(q, queryKey, () => q.setQueryData(queryKey, change));
  },
};
