import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Problem, sheetInput, type CutPlan, type Paper } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { Button, Caution, Field, Figure, Select } from "../parts/controls";
import { Faces } from "../parts/Faces";
import { useUnits } from "../settings";
import { length, parseLength, parseNumber, sheetSize } from "../units";
import { useKeepLeftovers } from "./leftovers";
import { toldIn, sizeInput, typed, type TypedSize } from "./typedSize";

interface Row extends TypedSize {
  name: string;
  count: string;
  grain: Grain;
  shape: Shape;
  /** The paper in the drawer that a row stands for. */
  paper?: Paper;
}

/** Of a piece: a rectangle, half of one, or so many equal sides. */
type Shape = "rectangle" | "triangle" | "3" | "5" | "6" | "8";

type Grain = "any" | "width" | "height";

const place = "tussock-cut-plan";

interface KeptPlan {
  pieces: Row[];
  papers: Row[];
  kerf: TypedSize;
}

/** The order as it was left on this device. */
function keptPlan(): KeptPlan | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? "null") as Partial<KeptPlan> | null;
    return kept && Array.isArray(kept.pieces) && Array.isArray(kept.papers) && kept.kerf
      ? (kept as KeptPlan)
      : undefined;
  } catch {
    return undefined; // what is kept there is not ours
  }
}

function keepPlan(p: KeptPlan) {
  try {
    localStorage.setItem(place, JSON.stringify(p));
  } catch {
    // A browser that keeps nothing begins afresh next time.
  }
}

/** Plan how pieces are cut from the papers at hand. */
export function CutPlanner() {
  const units = useUnits();
  const row = (name: string, w: number, h: number, count: string): Row => ({
    name,
    ...typed(w, h, units),
    count,
    grain: "any",
    shape: "rectangle",
  });
  const [was] = useState(keptPlan);
  const [wanted, setPieces] = useState(
    () => was?.pieces ?? [row("square", 105, 105, "3"), row("strip", 148.5, 40, "2")],
  );
  const [held, setPapers] = useState(() => was?.papers ?? [row("leaflet", 210, 297, "4")]);
  const [lost, setKerf] = useState(() => was?.kerf ?? typed(0, 0, units));
  useEffect(() => keepPlan({ pieces: wanted, papers: held, kerf: lost }), [wanted, held, lost]);
  const [pieces, papers] = [wanted, held].map((rows) => rows.map((r) => toldIn(r, units))) as [Row[], Row[]];
  const kerf = toldIn(lost, units);
  const [own, setOwn] = useState("");
  const drawer = useQuery(question.papers());
  const sent = (rows: Row[]) =>
    rows.map((r) => {
      const sides = r.shape === "rectangle" || r.shape === "triangle" ? undefined : Number(r.shape);
      // A regular piece has one length, its side.
      const size = sizeInput(sides === undefined ? r : { ...r, height: r.width });
      const count = parseNumber(r.count);
      if (size === undefined || count === undefined) return undefined;
      return { row: r, piece: { name: r.name, size, count, grain: r.grain, ...shapeOf(r.shape) } };
    });
  const order = (rows = pieces) => {
    const [p, q] = [sent(rows), sent(papers)];
    const k = parseLength(kerf.width, units);
    const [ps, qs] = [p.filter((r) => r !== undefined), q.filter((r) => r !== undefined)];
    if (ps.length < p.length || qs.length < q.length || k === undefined) return undefined;
    return {
      ps: ps.map((r) => r.piece),
      qs: qs.map(({ piece: { name, size, count, grain } }) => ({ name, size, count, grain })),
      rows: qs.map((r) => r.row),
      k,
    };
  };
  const [asked, setAsked] = useState(() => order());
  const plan = useQuery(question.cuts(asked));
  const ask = (rows = pieces) => {
    const o = order(rows);
    setOwn(o ? "" : "A size or count is no number; write for example 105, 8 1/2 or 21cm.");
    if (o) setAsked(o);
  };
  const problem = own || (plan.error instanceof Problem ? plan.error.message : "");
  return (
    <div className="grid gap-8 lg:grid-cols-[34rem_1fr]">
      <form
        className="space-y-5"
        onSubmit={(e) => {
          e.preventDefault();
          ask();
        }}
      >
        <Rows
          title="Pieces wanted"
          shaped
          rows={pieces}
          onChange={setPieces}
          fresh={() => row("piece", 100, 100, "1")}
        />
        <Rows
          title="Papers at hand"
          rows={papers}
          onChange={setPapers}
          fresh={() => row("sheet", 210, 297, "1")}
        />
        {drawer.data && drawer.data.length > 0 && (
          <div role="group" aria-label="From the drawer" className="flex flex-wrap gap-2">
            {drawer.data.map((p) => (
              <Button
                key={p.id}
                disabled={papers.length >= 12 || papers.some((r) => r.paper?.id === p.id)}
                onClick={() =>
                  setPapers([
                    ...papers,
                    {
                      ...row(p.name, p.sheet.width_mm, p.sheet.height_mm, String(p.left ?? 1)),
                      grain: p.grain === "" ? "any" : p.grain,
                      paper: p,
                    },
                  ])
                }
              >
                <Faces front={p.sheet.front} back={p.sheet.back} /> {p.name}
              </Button>
            ))}
          </div>
        )}
        <Field
          label="Lost at each cut"
          unit={units}
          value={kerf.width}
          hint="0 for scissors on a fold; more where paper is torn."
          onChange={(e) => setKerf({ ...kerf, width: e.target.value })}
        />
        <Button type="submit" weight="now" className="w-full text-lg">
          Plan the cuts
        </Button>
      </form>
      <div>
        {problem && <Caution title="The order is not clear">{problem}</Caution>}
        {!problem && plan.data && asked && (
          <Plan
            plan={plan.data}
            papers={asked.rows}
            print={`/api/v1/cut-plans/print?${new URLSearchParams({
              order: JSON.stringify({ pieces: asked.ps, papers: asked.qs, kerf_mm: asked.k }),
              units,
            })}`}
            onSize={(i, w, h) => {
              const next = pieces.map((r, k) => (k === i ? { ...r, ...typed(w, h, units) } : r));
              setPieces(next);
              ask(next);
            }}
          />
        )}
      </div>
    </div>
  );
}

function Rows({
  title,
  shaped,
  rows,
  onChange,
  fresh,
}: {
  title: string;
  shaped?: boolean;
  rows: Row[];
  onChange: (r: Row[]) => void;
  fresh: () => Row;
}) {
  const units = useUnits();
  const set = (i: number, part: Partial<Row>) =>
    onChange(rows.map((r, j) => (i === j ? { ...r, ...part } : r)));
  return (
    <fieldset className="space-y-3">
      <legend className="flex w-full items-center justify-between">
        <span className="title text-xl">{title}</span>
        <Button disabled={rows.length >= 12} onClick={() => onChange([...rows, fresh()])}>
          One more
        </Button>
      </legend>
      {rows.map((r, i) => (
        <div
          key={i}
          role="group"
          aria-label={`${title}, row ${i + 1}`}
          className="grid grid-cols-6 items-end gap-2 border-t border-line pt-2"
        >
          <Field
            label="Name"
            value={r.name}
            onChange={(e) => set(i, { name: e.target.value })}
            className={shaped ? "col-span-3" : "col-span-6"}
          />
          {shaped && (
            <Select
              label="Shape"
              className="col-span-3"
              value={r.shape}
              options={shapes}
              onChange={(shape) => set(i, { shape })}
            />
          )}
          <Field
            label={`${r.shape === "rectangle" || r.shape === "triangle" ? "Width" : "Side"}, ${units}`}
            value={r.width}
            onChange={(e) => set(i, { width: e.target.value })}
            className="max-sm:col-span-2"
          />
          <Field
            label={`Height, ${units}`}
            value={r.shape === "rectangle" || r.shape === "triangle" ? r.height : ""}
            disabled={r.shape !== "rectangle" && r.shape !== "triangle"}
            onChange={(e) => set(i, { height: e.target.value })}
            className="max-sm:col-span-2"
          />
          <Field
            label="Count"
            value={r.count}
            onChange={(e) => set(i, { count: e.target.value })}
            className="max-sm:col-span-2"
          />
          <Select
            label="Grain"
            className="col-span-4 sm:col-span-2"
            value={r.grain}
            options={grains}
            onChange={(grain) => set(i, { grain })}
          />
          <Button
            weight="bare"
            className="max-sm:col-span-2"
            aria-label={`Take row ${i + 1} of ${title.toLowerCase()} away`}
            disabled={rows.length === 1}
            onClick={() => onChange(rows.filter((_, j) => j !== i))}
          >
            Away
          </Button>
        </div>
      ))}
    </fieldset>
  );
}

/** The way the fibres run: pieces lie along it where it is known and asked for. */
const grains: { value: Grain; label: string }[] = [
  { value: "any", label: "any" },
  { value: "width", label: "along width" },
  { value: "height", label: "along height" },
];

const shapes: { value: Shape; label: string }[] = [
  { value: "rectangle", label: "rectangle" },
  { value: "triangle", label: "half of it, a triangle" },
  { value: "3", label: "3 equal sides" },
  { value: "5", label: "5 equal sides" },
  { value: "6", label: "6 equal sides" },
  { value: "8", label: "8 equal sides" },
];

const shapeOf = (s: Shape) =>
  s === "rectangle" || s === "triangle" ? { shape: s } : { shape: "ngon" as const, n: Number(s) };

function Plan({
  plan,
  papers,
  print,
  onSize,
}: {
  plan: CutPlan;
  papers: Row[];
  print: string;
  /** Takes another size for a row of the pieces. */
  onSize: (row: number, widthMM: number, heightMM: number) => void;
}) {
  const units = useUnits();
  const keepLeftovers = useKeepLeftovers();
  const [kept, setKept] = useState<CutPlan | null>(null);
  const leftOf = (sheets: CutPlan["sheets"]) =>
    sheets.flatMap((s) => Array.from({ length: s.count }, () => s.parts.filter((p) => p.keeps)).flat());
  const left = leftOf(plan.sheets);
  const shaped = plan.sheets.some((s) => s.parts.some((p) => p.outlines));
  const keep = async () => {
    setKept(plan);
    for (const [i, row] of papers.entries()) {
      const cut = plan.sheets.filter((s) => s.paper === i);
      const pieces = leftOf(cut);
      if (pieces.length === 0 && !row.paper) continue;
      await keepLeftovers(
        row.name,
        row.paper && sheetInput(row.paper.sheet),
        pieces,
        row.paper && { paper_id: row.paper.id, used: cut.reduce((n, s) => n + s.count, 0) },
      );
    }
  };
  return (
    <div className="space-y-6">
      <Figure value={String(Math.round(100 * plan.yield))} unit="% of the paper used">
        {plan.opened} {plan.opened === 1 ? "sheet is" : "sheets are"} opened.{" "}
        {plan.exact
          ? "No plan with straight cuts right across opens less paper."
          : "A good plan; with so many different pieces not every one was looked at."}
      </Figure>
      {plan.missing.length > 0 && (
        <Caution still title="Not everything fits">
          {plan.missing.join(", ")} cannot be cut from these papers.
        </Caution>
      )}
      {plan.sheets.length > 0 && (
        <p className="border-2 border-on-mark bg-caution px-2 py-1 text-sm text-on-mark">
          <b>Scissors.</b> Small children need an adult's help. Cut away from your fingers; pass scissors by
          the handle. <b>Scraps</b> burn fast: keep them from flames.
        </p>
      )}
      {left.length > 0 && (
        <Button disabled={kept === plan} onClick={() => void keep()}>
          Put the {left.length === 1 ? "leftover" : `${left.length} leftovers`} into the drawer
        </Button>
      )}
      {plan.sheets.length > 0 && (
        <a
          className="flex min-h-11 w-fit items-center border-2 border-ink bg-panel px-4 font-semibold hover:bg-ground"
          href={print}
          target="_blank"
          rel="noreferrer"
        >
          Print the plan, {plan.sheets.length} {plan.sheets.length === 1 ? "page" : "pages"} (PDF)
        </a>
      )}
      {plan.ladders.map((l) => (
        <section key={l.row} aria-label={`Sizes for ${l.piece || `row ${l.row + 1}`}`}>
          <p className="font-semibold">
            {l.piece || `Row ${l.row + 1}`}: so many come from one {l.paper || "sheet"} if they are as large
            as
          </p>
          <div className="mt-1 flex flex-wrap gap-1.5">
            {l.rungs.map((r) => (
              <Button
                key={r.count}
                className="text-sm"
                onClick={() => onSize(l.row, r.width_mm, r.height_mm)}
              >
                {r.count} at{" "}
                {Math.abs(r.width_mm - r.height_mm) < 0.005
                  ? length(r.width_mm, units)
                  : sheetSize(r.width_mm, r.height_mm, units)}
              </Button>
            ))}
          </div>
        </section>
      ))}
      {shaped && (
        <p>
          First the straight cuts, right across; then the outlines within their rectangles. Outlines can be
          printed under Get a sheet.
        </p>
      )}
      <ul className={`grid gap-6 ${plan.sheets.length > 1 ? "xl:grid-cols-2" : ""}`}>
        {plan.sheets.map((s, i) => (
          <li key={i}>
            <h2 className="text-xl">
              {s.count === 1 ? "One sheet" : `${s.count} sheets`} like this:{" "}
              {s.name || sheetSize(s.width_mm, s.height_mm, units)}
            </h2>
            <Layout sheet={s} />
            <ol className="mt-2 list-decimal pl-6 text-sm">
              {s.cuts.map((c, k) => (
                <li key={k}>{c.words}</li>
              ))}
            </ol>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Layout({ sheet: s }: { sheet: CutPlan["sheets"][number] }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const size = Math.max(s.width_mm, s.height_mm);
  const pad = size * 0.02;
  const words = s.parts.filter((p) => !p.leftover).length;
  return (
    <svg
      role="img"
      aria-label={`${words} pieces on a sheet of ${sheetSize(s.width_mm, s.height_mm, units)}`}
      viewBox={`${-pad} ${-pad} ${s.width_mm + 2 * pad} ${s.height_mm + 2 * pad}`}
      className="mt-1 max-h-[30rem] w-full"
    >
      <rect
        width={s.width_mm}
        height={s.height_mm}
        fill={plain.front}
        stroke="#10302f"
        vectorEffect="non-scaling-stroke"
      />
      {s.parts.map((p, i) => (
        <g key={i} transform={`translate(${p.x} ${s.height_mm - p.y - p.height_mm})`}>
          <rect
            width={p.width_mm}
            height={p.height_mm}
            fill={p.leftover ? "none" : plain.back}
            stroke="#10302f"
            strokeDasharray={p.leftover ? "3 4" : undefined}
            vectorEffect="non-scaling-stroke"
          />
          <Words part={p} size={size} />
        </g>
      ))}
      {s.parts.map((p) =>
        p.outlines?.map((o, k) => (
          <path
            key={`${p.x} ${p.y} ${k}`}
            d={`M${Array.from({ length: o.length / 2 }, (_, n) => `${o[2 * n]} ${s.height_mm - (o[2 * n + 1] ?? 0)}`).join("L")}z`}
            fill="none"
            stroke="#10302f"
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
        )),
      )}
      {s.cuts.map((c, i) => {
        const [x1, y1, x2, y2] = c.upright
          ? [c.at_mm, s.height_mm - c.from_mm, c.at_mm, s.height_mm - c.to_mm]
          : [c.from_mm, s.height_mm - c.at_mm, c.to_mm, s.height_mm - c.at_mm];
        const at = (a: number, b: number) =>
          a + Math.sign(b - a) * Math.min(size * 0.06, Math.abs(b - a) / 2);
        return (
          <g key={i}>
            <line
              x1={x1}
              y1={y1}
              x2={x2}
              y2={y2}
              stroke="#10302f"
              strokeWidth="2"
              strokeDasharray="6 4"
              vectorEffect="non-scaling-stroke"
            />
            <circle
              cx={at(x1, x2)}
              cy={at(y1, y2)}
              r={size * 0.02}
              fill={plain.front}
              stroke="#10302f"
              vectorEffect="non-scaling-stroke"
            />
            <text
              x={at(x1, x2)}
              y={at(y1, y2)}
              fontSize={size * 0.026}
              textAnchor="middle"
              dominantBaseline="central"
              fill="#10302f"
            >
              {i + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** A part's name and size, along its longer side, where there is room for them. */
function Words({ part: p, size }: { part: CutPlan["sheets"][number]["parts"][number]; size: number }) {
  const units = useUnits();
  const [long, short] = [Math.max(p.width_mm, p.height_mm), Math.min(p.width_mm, p.height_mm)];
  const name = p.leftover ? "left over" : p.name;
  const said = sheetSize(p.width_mm, p.height_mm, units);
  // A letter is about half as wide as it is high.
  const font = Math.min(size * 0.034, long / (0.55 * Math.max(name.length, said.length)), short / 2.6);
  if (font < size * 0.014) return null;
  return (
    <g
      fontSize={font}
      fill="#10302f"
      textAnchor="middle"
      transform={`translate(${p.width_mm / 2} ${p.height_mm / 2})${p.height_mm > p.width_mm ? " rotate(-90)" : ""}`}
    >
      <text y={-font * 0.3}>{name}</text>
      <text y={font * 0.9}>{said}</text>
    </g>
  );
}
