import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { api, Problem, type SheetInput, type SheetSpec } from "../api/client";
import { question, changed } from "../api/queries";
import { useUnits } from "../settings";
import { offerUndo } from "../undo";
import { number, parse, sheetSize, type Units } from "../units";
import { Button, Choice, Field } from "./controls";
import { Colour, Faces } from "./Faces";
import { NearSize } from "./NearSize";

interface Draft {
  width: string;
  height: string;
  unit: Units;
  gsm: string;
  thickness: string;
  paper: string;
  front: string;
  back: string;
}

/** Sides as they are typed: exact, not rounded to a sixteenth. */
const side = (mm: number, unit: Units) => number(unit === "mm" ? mm : mm / 25.4, unit === "mm" ? 2 : 4);

function draftOf(s: SheetSpec, unit: Units): Draft {
  return {
    width: side(s.width_mm, unit),
    height: side(s.height_mm, unit),
    unit,
    gsm: number(s.gsm, 2),
    thickness: number(s.thickness_mm, 3),
    paper: s.paper,
    front: s.front,
    back: s.back,
  };
}

const unitOf = (field: "width" | "height" | "gsm" | "thickness", d: Draft) =>
  field === "gsm" ? "g/m²" : field === "thickness" ? "mm" : d.unit;

/** NaN cannot be sent; the form says itself that a field holds no number. */
function inputOf(d: Draft): SheetInput | { field: keyof Draft; message: string } {
  for (const field of ["width", "height", "gsm", "thickness"] as const) {
    if (parse(d[field], unitOf(field, d)) === undefined) {
      const example =
        field === "gsm" ? "80" : field === "thickness" ? "0.1" : d.unit === "mm" ? "210" : "8 1/2";
      return { field, message: `“${d[field]}” is not a number; write for example ${example}` };
    }
  }
  return {
    width: parse(d.width, d.unit) ?? 0,
    height: parse(d.height, d.unit) ?? 0,
    unit: d.unit,
    gsm: parse(d.gsm, "g/m²") ?? 0,
    thickness_mm: parse(d.thickness, "mm") ?? 0,
    ...(d.paper ? { paper: d.paper } : {}),
    front: d.front,
    back: d.back,
  };
}

/** Choose a sheet: by name, from the drawer, or by its measures. */
export function SheetForm({
  first,
  action,
  problem,
  weight = "now",
  children,
  onChoose,
}: {
  first: SheetSpec;
  action: string;
  weight?: "now" | "main";
  children?: ReactNode;
  problem: Error | null;
  onChoose: (sheet: SheetInput) => void;
}) {
  const units = useUnits();
  const queries = useQueryClient();
  const [draft, setDraft] = useState(() => draftOf(first, units));
  const [own, setOwn] = useState<{ field: string; message: string } | null>(null);
  const [keeping, setKeeping] = useState<Problem | null>(null);
  const sizes = useQuery(question.sizes());
  const papers = useQuery(question.papers());
  const set = (part: Partial<Draft>) => {
    setOwn(null);
    setDraft((d) => ({ ...d, ...part }));
  };
  const refused = keeping ?? (problem instanceof Problem ? problem : null);
  const wrong = (field: string, sent = field) => (own?.field === field ? own.message : refused?.field(sent));
  const choose = () => {
    const input = inputOf(draft);
    if ("field" in input) setOwn(input);
    else onChoose(input);
  };
  const refresh = () => changed.papers(queries);
  const keep = async () => {
    const input = inputOf(draft);
    if ("field" in input) {
      setOwn(input);
      return;
    }
    try {
      setKeeping(null);
      const { id } = await api.addPaper({ name: draft.paper, sheet: input });
      await refresh();
      offerUndo(`${draft.paper} is in the drawer`, { do: "bin paper", id });
    } catch (e) {
      setKeeping(e as Problem);
    }
  };
  const throwAway = async (id: number, name: string) => {
    await api.binPaper(id);
    await refresh();
    offerUndo(`${name} is in the bin`, { do: "restore paper", id });
  };
  const pick =
    "min-h-11 border-2 border-ink bg-panel px-3 py-2 text-left hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel";
  const [nearW, nearH] = [parse(draft.width, draft.unit), parse(draft.height, draft.unit)];
  const near =
    nearW === undefined || nearH === undefined
      ? undefined
      : { width: nearW, height: nearH, unit: draft.unit };
  const isSize = (w: number, h: number) =>
    draft.width === side(w, draft.unit) && draft.height === side(h, draft.unit);
  return (
    <form
      className="space-y-4"
      onSubmit={(e) => {
        e.preventDefault();
        choose();
      }}
    >
      <div>
        <p className="mb-1 text-sm font-semibold">Size</p>
        <div className="flex flex-wrap gap-2">
          {sizes.data?.map((z) => (
            <button
              key={z.id}
              type="button"
              className={pick}
              aria-pressed={isSize(z.width_mm, z.height_mm)}
              onClick={() =>
                set({ width: side(z.width_mm, draft.unit), height: side(z.height_mm, draft.unit) })
              }
            >
              <b>{z.name}</b>{" "}
              <span className="text-sm max-sm:hidden">{sheetSize(z.width_mm, z.height_mm, units)}</span>
            </button>
          ))}
        </div>
      </div>
      {papers.data && papers.data.length > 0 && (
        <div>
          <p className="mb-1 text-sm font-semibold">From the drawer</p>
          <div className="flex flex-wrap gap-2">
            {papers.data.map((p) => (
              <button
                key={p.id}
                type="button"
                className={pick}
                aria-pressed={draft.paper === p.name && isSize(p.sheet.width_mm, p.sheet.height_mm)}
                onClick={() => set(draftOf({ ...p.sheet, paper: p.name }, draft.unit))}
              >
                <Faces front={p.sheet.front} back={p.sheet.back} /> {p.name}
              </button>
            ))}
          </div>
        </div>
      )}
      <Choice
        label="Own measures in"
        value={draft.unit}
        options={[
          { value: "mm", label: "mm" },
          { value: "in", label: "inch" },
        ]}
        onChange={(unit) => {
          const factor = unit === draft.unit ? 1 : unit === "in" ? 1 / 25.4 : 25.4;
          const turn = (t: string) => {
            const v = parse(t, draft.unit);
            return v === undefined ? t : number(v * factor, unit === "mm" ? 2 : 4);
          };
          set({ unit, width: turn(draft.width), height: turn(draft.height) });
        }}
      />
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Width"
          inputMode="text"
          unit={draft.unit}
          value={draft.width}
          problem={wrong("width")}
          onChange={(e) => set({ width: e.target.value })}
        />
        <Field
          label="Height"
          inputMode="text"
          unit={draft.unit}
          value={draft.height}
          problem={wrong("height")}
          onChange={(e) => set({ height: e.target.value })}
        />
        <Field
          label="Paper weight"
          inputMode="decimal"
          unit="g/m²"
          value={draft.gsm}
          problem={wrong("gsm")}
          onChange={(e) => set({ gsm: e.target.value })}
        />
        <Field
          label="Thickness"
          inputMode="decimal"
          unit="mm"
          value={draft.thickness}
          problem={wrong("thickness", "thickness_mm")}
          onChange={(e) => set({ thickness: e.target.value })}
        />
      </div>
      <NearSize
        size={near}
        onTake={(w, h) => set({ width: side(w, draft.unit), height: side(h, draft.unit) })}
      />
      <details>
        <summary className="text-sm font-semibold">Faces, and keep this paper in the drawer</summary>
        <div className="mt-2 space-y-3">
          <div className="flex gap-6">
            <Colour label="Front" value={draft.front} onChange={(front) => set({ front })} />
            <Colour label="Back" value={draft.back} onChange={(back) => set({ back })} />
          </div>
          <Field
            label="Name of the paper"
            value={draft.paper}
            maxLength={80}
            problem={keeping?.field("name")}
            onChange={(e) => set({ paper: e.target.value })}
          />
          <Button onClick={() => void keep()}>Keep in the drawer</Button>
          {papers.data && papers.data.length > 0 && (
            <ul className="text-sm">
              {papers.data.map((p) => (
                <li key={p.id} className="flex items-center justify-between gap-2 border-t border-line">
                  <span>
                    {p.name}, {sheetSize(p.sheet.width_mm, p.sheet.height_mm, units)}, {number(p.sheet.gsm)}{" "}
                    g/m²
                  </span>
                  <button
                    type="button"
                    className="min-h-9 px-2 underline"
                    aria-label={`Put ${p.name} into the bin`}
                    onClick={() => void throwAway(p.id, p.name)}
                  >
                    Bin
                  </button>
                </li>
              ))}
            </ul>
          )}
        </div>
      </details>
      {children}
      <div className="sticky bottom-0 -mx-5 -mb-5 border-t border-line bg-panel p-5 py-3">
        <Button type="submit" weight={weight} className="title w-full text-xl">
          {action}
        </Button>
      </div>
    </form>
  );
}
