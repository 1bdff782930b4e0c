import createClient from "openapi-fetch";
import { EventSourceParserStream } from "eventsource-parser/stream";
import { said, type Units } from "../say";
import { ownSettings } from "./own";
import { me } from "./page";
import type { components, paths } from "./schema";
import type { Moves } from "./moves";

type Schemas = components["schemas"];
export type Division = Schemas["DivisionView"];
export type CutPlan = Schemas["CutPlanView"];
export type Facts = Schemas["FactsView"];
export type SizeInput = Schemas["SizeInput"];
export type Want = Schemas["SheetWant"];
export type Way = Schemas["WayView"];
export type Ways = Schemas["WaysView"];
export type Fit = Schemas["FitView"];
export type Use = Schemas["UseView"];
export type EffectOnToy = Schemas["EffectView"];
export type Placement = Schemas["PlacementView"];
export type Care = Schemas["CareView"];
export type Reach = Schemas["ReachView"];
export type Key = Schemas["Key"];
export type StepLook = Schemas["LookView"];
export type CautionWords = Schemas["CautionView"];
export type Study = Schemas["StudyView"];
export type StudyCard = Schemas["StudyCard"];
export type Pattern = Schemas["PatternView"];
export type Knob = Schemas["KnobView"];
export type Replay = Schemas["ReplayView"];
export type Step = Schemas["StepView"];
export type Toy = Schemas["ToyView"];
export type Picture = Schemas["Picture"];
export type Arrow = Schemas["Arrow"];
export type Overlay = Schemas["Overlay"];
export type Region = Schemas["Region"];
export type Build = Schemas["BuildView"];
export type BuildCard = Schemas["BuildCard"];
export type Change = Schemas["ChangeView"];
export type Tweak = Schemas["TweakView"];
export type Trial = Schemas["TrialView"];
export type TrialInput = Schemas["TrialInput"];
export type Stats = Schemas["Stats"];
export type Setup = Schemas["Setup"];
export type SheetSpec = Schemas["SheetSpec"];
export type SheetInput = Schemas["SheetInput"];
export type Paper = Schemas["PaperView"];
export type PaperInput = Schemas["PaperInput"];
export type Moving = Schemas["Way"];
export type Condition = Schemas["Condition"];
export type TrialRecord = Schemas["Record"];
export type TrialKind = Schemas["Kind"];
export type Gauge = Schemas["Gauge"];
export type Prediction = Schemas["PredictionView"];
export type Outcome = Schemas["Outcome"];
export type Outlook = Schemas["Outlook"];
export type Reading = Schemas["Reading"];
export type Clinic = Schemas["ClinicView"];
export type Remedy = Schemas["Remedy"];
export type KnobChange = Schemas["Change"];
export type Sizes = Schemas["SizesView"];
export type School = Schemas["SchoolView"];
export type Lever = Schemas["Lever"];
export type Sensitivity = Schemas["SensitivityView"];
export type Sweep = Schemas["SweepView"];
export type Optimum = Schemas["OptimumView"];
export type SearchProgress = Schemas["Progress"];
export type Settings = Schemas["Settings"];
export type Bundle = Schemas["Bundle"];
export type Sharing = Schemas["SharingView"];
export type Me = Schemas["MeView"];
export type ShelfWish = NonNullable<
  paths["/api/v1/shelf"]["post"]["requestBody"]
>["content"]["application/json"];
export type Sifted = Schemas["ShelfView"];
export type Preview = Schemas["PreviewView"];
export type AtHand = Schemas["AtHandView"];
export type Written = NonNullable<Setup["written"]>;
export type Mark = Schemas["Mark"];
export type WrittenToy = Schemas["WrittenView"];
export type PackCard = Schemas["PackCard"];
export type PackList = Schemas["PackList"];
export type Pack = Schemas["PackView"];
export type Followed = Schemas["Followed"];
export type HallEvent = Schemas["Event"];

const client = createClient<paths>({ baseUrl: "/" });

// Sentences carry their quantities: they are put into the person's units as they come in.
// What is asked before the units are known waits for them.
let spoken: Units | undefined;
let heard: Promise<Settings> | undefined;

/** From now on sentences are told in these units. */
export const speak = (units: Units) => {
  spoken = units;
};

async function inTheirUnits(text: string): Promise<string> {
  if (!text.includes("⟨")) return text;
  if (!spoken) {
    heard ??= api.settings();
    await heard.catch(() => undefined); // without them it is told in millimetres
  }
  return said(text, spoken ?? "mm");
}

client.use({
  onRequest({ request }) {
    request.headers.set("X-Tussock-Page", me);
    return request;
  },
  async onResponse({ response }) {
    if (!response.headers.get("Content-Type")?.includes("json")) return undefined;
    const { status, statusText, headers } = response;
    return new Response(await inTheirUnits(await response.text()), { status, statusText, headers });
  },
});

/** What the server refuses: a sentence, and for each field what would be right. */
export class Problem extends Error {
  readonly status: number;
  readonly fields: { location: string; message: string }[];

  constructor(status: number, detail: string, fields: { location: string; message: string }[]) {
    super(detail);
    this.status = status;
    this.fields = fields;
  }

  /** The message for a field by the end of its place, such as "width". */
  field(name: string): string | undefined {
    return this.fields.find((f) => f.location.split(".").at(-1) === name)?.message;
  }
}

interface Answer<T> {
  data?: T;
  error?: Schemas["ErrorModel"];
  response: Response;
}

async function read<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch (e) {
    if (e instanceof DOMException && e.name === "AbortError") throw e;
    throw new Problem(0, "Tussock does not answer. Is it still running on this machine?", []);
  }
  const { data, error, response } = answer;
  if (!response.ok) {
    const fields = (error?.errors ?? []).map((e) => ({
      location: e.location ?? "",
      message: e.message ?? "",
    }));
    const detail = fields.length > 0 ? fields.map((f) => f.message).join("; ") : error?.detail;
    throw new Problem(response.status, detail ?? `The server answered ${response.status}`, fields);
  }
  return data as T;
}

/** A sheet in mm as the API takes it. */
export function sheetInput(s: SheetSpec): SheetInput {
  const { width_mm, height_mm, ...rest } = s;
  return { ...rest, width: width_mm, height: height_mm, unit: "mm" };
}

/** A paper as the API takes it, all that is known of it. */
export function paperInput(p: Paper): PaperInput {
  const { name, grain, stiffness, left } = p;
  return { name, sheet: sheetInput(p.sheet), grain, stiffness, ...(left === undefined ? {} : { left }) };
}

function setupInput(s: Setup) {
  return {
    sheet: sheetInput(s.sheet),
    knobs: s.knobs,
    ...(s.recipes ? { recipes: s.recipes } : {}),
    ...(s.written ? { written: s.written } : {}),
  };
}

const motionInput = (setup: Setup, conditions: Record<string, number>) => ({
  ...setupInput(setup),
  conditions,
});

/** The events of a stream, in the shape that the API tells. */
async function stream(
  path: string,
  body: unknown,
  signal: AbortSignal,
  on: (name: string, data: unknown) => void,
): Promise<void> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(body),
    signal,
  });
  if (!response.ok || !response.body) {
    const error = JSON.parse(await inTheirUnits(await response.text())) as Schemas["ErrorModel"];
    await read(Promise.resolve({ error, response } as Answer<never>));
    return;
  }
  const events = response.body
    .pipeThrough(new TextDecoderStream())
    .pipeThrough(new EventSourceParserStream());
  for (const reader = events.getReader(); ;) {
    const { done, value } = await reader.read();
    if (done) return;
    on(value.event ?? "message", JSON.parse(await inTheirUnits(value.data)));
  }
}

const at = (id: number) => ({ params: { path: { id } } });

export const api = {
  care: (id: string, setup: Setup, hand: "adult" | "child", signal?: AbortSignal) =>
    read<Care[]>(
      client.POST("/api/v1/patterns/{id}/care", {
        params: { path: { id }, query: { hand } },
        body: setupInput(setup),
        signal,
      }),
    ),
  reach: (id: string, setup: Setup, signal?: AbortSignal) =>
    read<Reach[]>(
      client.POST("/api/v1/patterns/{id}/reach", {
        params: { path: { id } },
        body: setupInput(setup),
        signal,
      }),
    ),
  written: (id: string, setup: Setup) =>
    read<WrittenToy>(
      client.POST("/api/v1/patterns/{id}/written", { params: { path: { id } }, body: setupInput(setup) }),
    ),
  filled: (id: string, setup: Setup, pack: string, seed: number) =>
    read<Written>(
      client.POST("/api/v1/patterns/{id}/filled", {
        params: { path: { id } },
        body: { ...setupInput(setup), pack, seed },
      }),
    ),
  followed: (id: string, setup: Setup, play: string) =>
    read<Followed>(
      client.POST("/api/v1/patterns/{id}/followed", {
        params: { path: { id } },
        body: { ...setupInput(setup), play },
      }),
    ),
  between: (id: string, setup: Setup, from: number, to: number) =>
    read<Schemas["BetweenView"]>(
      client.POST("/api/v1/patterns/{id}/between", {
        params: { path: { id } },
        body: { ...setupInput(setup), from, to },
      }),
    ),
  packs: () => read<PackList>(client.GET("/api/v1/packs")),
  pack: (id: string) => read<Pack>(client.GET("/api/v1/packs/{id}", { params: { path: { id } } })),
  addPack: (text: string, title: string) =>
    read<Pack>(client.POST("/api/v1/packs", { body: { text, ...(title ? { title } : {}) } })),
  changePack: (p: Pack) =>
    read<Pack>(client.PUT("/api/v1/packs/{id}", { params: { path: { id: p.id } }, body: p })),
  binPack: (id: string) => read(client.DELETE("/api/v1/packs/{id}", { params: { path: { id } } })),
  restorePack: (id: string) =>
    read<Pack>(client.POST("/api/v1/packs/{id}/restore", { params: { path: { id } } })),
  addImage: async (file: Blob) => {
    const response = await fetch("/api/v1/images", {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream" },
      body: file,
    });
    const body = JSON.parse(await inTheirUnits(await response.text())) as unknown;
    return read<{ name: string }>(
      Promise.resolve(
        response.ok
          ? { data: body as { name: string }, response }
          : { error: body as Schemas["ErrorModel"], response },
      ),
    );
  },
  signs: () => read<Key[]>(client.GET("/api/v1/signs")),
  glance: (id: string, step: number, setup: Setup) =>
    read<Schemas["GlanceView"]>(
      client.POST("/api/v1/patterns/{id}/steps/{step}/glance", {
        params: { path: { id, step } },
        body: setupInput(setup),
      }),
    ),
  look: (id: string, step: number, setup: Setup) =>
    read<StepLook>(
      client.POST("/api/v1/patterns/{id}/steps/{step}/look", {
        params: { path: { id, step } },
        body: setupInput(setup),
      }),
    ),
  motion: (id: string, step: number, setup: Setup, azimuth: number, elevation: number) =>
    read<Schemas["MotionView"]>(
      client.POST("/api/v1/patterns/{id}/steps/{step}/motion", {
        params: { path: { id, step }, query: { azimuth, elevation } },
        body: setupInput(setup),
      }),
    ),
  whence: (id: string, setup: Setup, step: number, x: number, y: number) =>
    read<Schemas["WhenceView"]>(
      client.POST("/api/v1/patterns/{id}/whence", {
        params: { path: { id }, query: { step, x, y } },
        body: setupInput(setup),
      }),
    ),
  slip: (
    id: string,
    step: number,
    setup: Setup,
    slip: { past_mm: number } | { landmark: string; off_mm: number },
  ) =>
    read<Schemas["SlipView"]>(
      client.POST("/api/v1/patterns/{id}/steps/{step}/slip", {
        params: { path: { id, step }, query: slip },
        body: setupInput(setup),
      }),
    ),
  placements: (id: string, step: number, setup: Setup) =>
    read<Placement[]>(
      client.POST("/api/v1/patterns/{id}/steps/{step}/placements", {
        params: { path: { id, step } },
        body: setupInput(setup),
      }),
    ),
  divide: (sheet: SizeInput, what: "fraction" | "parts" | "length" | "angle", part: number, of: number) =>
    read<Division>(client.POST("/api/v1/divisions", { body: { sheet, what, part, of } })),
  planCuts: (pieces: Schemas["CutPiece"][], papers: Schemas["CutPaper"][], kerf_mm: number) =>
    read<CutPlan>(client.POST("/api/v1/cut-plans", { body: { pieces, papers, kerf_mm } })),
  sFold: (first_mm: number, middle_mm: number, last_mm: number) =>
    read<Schemas["SFoldView"]>(client.POST("/api/v1/s-folds", { body: { first_mm, middle_mm, last_mm } })),
  measuredSheet: (
    width_mm: number,
    height_mm: number,
    rising_mm: number,
    falling_mm: number,
    pattern: string,
  ) =>
    read<Schemas["SquarenessView"]>(
      client.POST("/api/v1/measured-sheets", {
        body: { width_mm, height_mm, rising_mm, falling_mm, ...(pattern ? { pattern } : {}) },
      }),
    ),
  ways: (sheet: SizeInput, want: Want, cut_free: boolean, gsm: number, thickness_mm: number) =>
    read<Ways>(client.POST("/api/v1/sheet-ways", { body: { sheet, want, cut_free, gsm, thickness_mm } })),
  fit: (id: string, sheet: SheetInput, knobs: Record<string, number>) =>
    read<Fit>(client.POST("/api/v1/patterns/{id}/fit", { params: { path: { id } }, body: { sheet, knobs } })),
  uses: (size: SizeInput, gsm: number, thickness_mm: number) =>
    read<Use[]>(client.POST("/api/v1/sheet-uses", { body: { size, gsm, thickness_mm } })),
  nearSizes: (size: SizeInput) =>
    read<Schemas["MeantView"][]>(client.POST("/api/v1/near-sizes", { body: size })),
  sheetFacts: (size: SizeInput) => read<Facts>(client.POST("/api/v1/sheet-facts", { body: size })),
  studies: () => read<StudyCard[]>(client.GET("/api/v1/studies")),
  study: (id: string) => read<Study>(client.GET("/api/v1/studies/{id}", { params: { path: { id } } })),
  sift: (wish: ShelfWish) => read<Sifted>(client.POST("/api/v1/shelf", { body: wish })),
  bestSheets: () => read<AtHand[]>(client.GET("/api/v1/best-sheets")),
  preview: (id: string) =>
    read<Preview>(client.GET("/api/v1/patterns/{id}/preview", { params: { path: { id } } })),
  next: (id: number) => read<Schemas["NextView"]>(client.GET("/api/v1/builds/{id}/next", at(id))),
  patterns: () => read<Pattern[]>(client.GET("/api/v1/patterns")),
  sizes: () => read<Schemas["SizeView"][]>(client.GET("/api/v1/sizes")),
  plainPaper: () => read<SheetSpec>(client.GET("/api/v1/plain-paper")),
  turnedOver: (sheet: SheetSpec) =>
    read<SheetSpec>(client.POST("/api/v1/turned-sheets", { body: sheetInput(sheet) })),
  moves: () => read<Moving[]>(client.GET("/api/v1/moves")),
  replay: (id: string, setup: Setup, signal?: AbortSignal) =>
    read<Replay>(
      client.POST("/api/v1/patterns/{id}/replay", {
        params: { path: { id } },
        body: setupInput(setup),
        signal,
      }),
    ),
  replayInput: (id: string, sheet: SheetInput, signal?: AbortSignal) =>
    read<Replay>(
      client.POST("/api/v1/patterns/{id}/replay", { params: { path: { id } }, body: { sheet }, signal }),
    ),
  builds: () => read<BuildCard[]>(client.GET("/api/v1/builds")),
  build: (id: number) => read<Build>(client.GET("/api/v1/builds/{id}", at(id))),
  createBuild: (pattern: string, sheet: SheetInput, name: string) =>
    read<Build>(client.POST("/api/v1/builds", { body: { pattern, sheet, ...(name ? { name } : {}) } })),
  rename: (id: number, name: string) =>
    read<Build>(client.PATCH("/api/v1/builds/{id}", { ...at(id), body: { name } })),
  keepStep: (id: number, step: number) =>
    read<Build>(client.PATCH("/api/v1/builds/{id}", { ...at(id), body: { step } })),
  duplicate: (id: number) => read<Build>(client.POST("/api/v1/builds/{id}/duplicate", at(id))),
  binBuild: (id: number) => read(client.DELETE("/api/v1/builds/{id}", at(id))),
  restoreBuild: (id: number) => read<Build>(client.POST("/api/v1/builds/{id}/restore", at(id))),
  /** last: the page is about to go, and cannot wait for an answer. */
  moveDraft: (id: number, m: Moves, last = false) =>
    read<Build>(
      client.PATCH("/api/v1/builds/{id}/draft", {
        ...at(id),
        body: {
          version: m.version,
          knobs: m.knobs,
          ...(m.sheet ? { sheet: sheetInput(m.sheet) } : {}),
          ...(m.recipes ? { recipes: m.recipes } : {}),
          ...(m.written ? { written: m.written } : {}),
        },
        keepalive: last,
      }),
    ),
  discardDraft: (id: number, version: number) =>
    read<Build>(client.DELETE("/api/v1/builds/{id}/draft", { params: { path: { id }, query: { version } } })),
  makeTweak: (id: number, version: number, why: string) =>
    read<Build>(client.POST("/api/v1/builds/{id}/tweaks", { ...at(id), body: { version, why } })),
  withdrawTweak: (id: number, no: number) =>
    read<Build>(client.DELETE("/api/v1/builds/{id}/tweaks/{no}", { params: { path: { id, no } } })),
  setWhy: (id: number, no: number, why: string) =>
    read<Build>(
      client.PATCH("/api/v1/builds/{id}/tweaks/{no}", { params: { path: { id, no } }, body: { why } }),
    ),
  makeChild: (id: number, version: number) =>
    read<Build>(client.POST("/api/v1/builds/{id}/children", { ...at(id), body: { version } })),
  /** A trial with what the page showed when it was tried; the same key is logged once. */
  logTrial: (
    id: number,
    trial: TrialInput,
    shown: { setup: Setup; version: number },
    sent: { key: string; sure: boolean },
  ) =>
    read<Schemas["LoggedView"]>(
      client.POST("/api/v1/builds/{id}/trials", {
        ...at(id),
        body: { ...trial, setup: setupInput(shown.setup), version: shown.version, ...sent },
      }),
    ),
  changeTrial: (id: number, trial: TrialInput) =>
    read<Build>(client.PUT("/api/v1/trials/{id}", { ...at(id), body: trial })),
  binTrial: (id: number) => read<Build>(client.DELETE("/api/v1/trials/{id}", at(id))),
  restoreTrial: (id: number) => read<Build>(client.POST("/api/v1/trials/{id}/restore", at(id))),
  papers: () => read<Paper[]>(client.GET("/api/v1/papers")),
  addPaper: (paper: PaperInput) => read<Paper>(client.POST("/api/v1/papers", { body: paper })),
  changePaper: (id: number, paper: PaperInput) =>
    read<Paper>(client.PUT("/api/v1/papers/{id}", { ...at(id), body: paper })),
  addLeftovers: (
    of: string,
    sheet: SheetInput | undefined,
    pieces: Schemas["LeftoverInput"][],
    cut?: { paper_id: number; used: number },
  ) =>
    read<Paper[]>(
      client.POST("/api/v1/leftovers", { body: { of, ...(sheet ? { sheet } : {}), pieces, ...cut } }),
    ),
  measurePaper: (size: SizeInput, grams: number, sheets: number, pile_mm: number, pile_sheets: number) =>
    read<Schemas["PaperMeasures"]>(
      client.POST("/api/v1/paper-measures", { body: { size, grams, sheets, pile_mm, pile_sheets } }),
    ),
  binPaper: (id: number) => read(client.DELETE("/api/v1/papers/{id}", at(id))),
  restorePaper: (id: number) => read(client.POST("/api/v1/papers/{id}/restore", at(id))),
  predict: (
    id: string,
    setup: Setup,
    how: Record<string, number>,
    ghosts: Schemas["GhostInput"][] = [],
    signal?: AbortSignal,
  ) =>
    read<Prediction>(
      client.POST("/api/v1/patterns/{id}/prediction", {
        params: { path: { id } },
        body: { ...motionInput(setup, how), ghosts },
        signal,
      }),
    ),
  takeMeasured: (id: string, setup: Setup, how: Record<string, number>, measured: Record<string, number>) =>
    read<Record<string, number>>(
      client.POST("/api/v1/patterns/{id}/measured", {
        params: { path: { id } },
        body: { ...motionInput(setup, how), measured },
      }),
    ),
  levers: (id: string, setup: Setup, how: Record<string, number>) =>
    read<Lever[]>(
      client.POST("/api/v1/patterns/{id}/levers", {
        params: { path: { id } },
        body: motionInput(setup, how),
      }),
    ),
  sensitivity: (id: string, setup: Setup, how: Record<string, number>) =>
    read<Sensitivity>(
      client.POST("/api/v1/patterns/{id}/sensitivity", {
        params: { path: { id } },
        body: motionInput(setup, how),
      }),
    ),
  sweep: (id: string, setup: Setup, how: Record<string, number>, lever: string, second: string) =>
    read<Sweep>(
      client.POST("/api/v1/patterns/{id}/sweep", {
        params: { path: { id } },
        body: { ...motionInput(setup, how), lever, ...(second ? { second } : {}) },
      }),
    ),
  clinic: (id: number, conditions: Record<string, number>, signal?: AbortSignal) =>
    read<Clinic>(client.POST("/api/v1/builds/{id}/clinic", { ...at(id), body: { conditions }, signal })),
  compareSizes: (id: number, conditions: Record<string, number>) =>
    read<Sizes>(client.POST("/api/v1/builds/{id}/sizes", { ...at(id), body: { conditions } })),
  schools: (id: number, conditions: Record<string, number>) =>
    read<School[]>(client.POST("/api/v1/builds/{id}/schools", { ...at(id), body: { conditions } })),
  /** Searches the best set-up for an aim; called off by the signal. */
  async optimise(
    id: string,
    setup: Setup,
    how: Record<string, number>,
    search: Pick<Schemas["OptimiseInput"], "aim" | "at" | "levers">,
    signal: AbortSignal,
    tell: (p: SearchProgress) => void,
  ): Promise<Optimum> {
    let found: Optimum | undefined;
    await stream(
      `/api/v1/patterns/${encodeURIComponent(id)}/optimise`,
      { ...motionInput(setup, how), ...search },
      signal,
      (name, data) => {
        if (name === "progress") tell(data as SearchProgress);
        if (name === "done") found = data as Optimum;
        if (name === "failed") throw new Problem(422, (data as Schemas["FailedView"]).detail, []);
      },
    );
    if (!found) throw new Problem(0, "The search ended without an answer.", []);
    return found;
  },
  me: () => read<Me>(client.GET("/api/v1/me")),
  callMe: (name: string) => read<Me>(client.PUT("/api/v1/me", { body: { name } })),
  putOut: (id: number) => read<Sharing>(client.DELETE("/api/v1/devices/{id}", at(id))),
  copies: () => read<Schemas["CopiesView"]>(client.GET("/api/v1/copies")),
  restoreCopy: (day: string) =>
    read<{ kept: string }>(client.POST("/api/v1/copies/{day}/restore", { params: { path: { day } } })),
  sharing: () => read<Sharing>(client.GET("/api/v1/sharing")),
  tellStep: (id: number, step: number, device: string) =>
    read(client.POST("/api/v1/builds/{id}/at", { ...at(id), body: { step, device } })),
  /** Those of the house; a guest's own choices lie over them. */
  settings: (): Promise<Settings> => {
    const asked = Promise.all([
      read<Settings>(client.GET("/api/v1/settings")),
      read<Me>(client.GET("/api/v1/me")),
    ]).then(([house, { guest }]) => {
      const own = guest ? { ...house, ...ownSettings() } : house;
      spoken ??= own.units;
      return own;
    });
    heard = asked;
    return asked;
  },
  setSettings: (s: Settings) => read<Settings>(client.PUT("/api/v1/settings", { body: s, keepalive: true })),
  bin: () => read<Schemas["BinView"]>(client.GET("/api/v1/bin")),
  addBundle: (bundle: Bundle) => read<Build>(client.POST("/api/v1/bundles", { body: bundle })),
  async restoreBackup(file: Blob): Promise<{ kept: string }> {
    const response = await fetch("/api/v1/backup", {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream", "X-Tussock-Page": me },
      body: file,
    });
    const body: unknown = await response.json();
    const answer = response.ok
      ? { data: body as { kept: string }, response }
      : { error: body as Schemas["ErrorModel"], response };
    return read<{ kept: string }>(Promise.resolve(answer));
  },
};
