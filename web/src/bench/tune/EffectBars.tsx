import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Setup } from "../../api/client";
import { question } from "../../api/queries";
import { Choice } from "../../parts/controls";
import { useUnits } from "../../settings";
import { inRecordUnit, number, recordUnit } from "../../units";
import { useConditions } from "../../parts/conditions";
import { stepWords } from "./levers";
import type { Ready } from "../frame/useBench";

/** Which knob matters: what one step of each changes. */
export function EffectBars({ ready, setup }: { ready: Ready; setup: Setup }) {
  const units = useUnits();
  const { way } = ready;
  const [how] = useConditions(way);
  const [by, setBy] = useState(way.measures[0]?.name ?? "");
  const id = ready.build.pattern;
  const answer = useQuery(question.sensitivity(id, setup, how));
  if (!answer.data) return <p>{answer.error ? answer.error.message : "Moving each knob by a step…"}</p>;
  const gauge = way.measures.find((m) => m.name === by);
  const unit = gauge?.unit ?? "";
  const shown = recordUnit(unit, units);
  const value = (v: number | undefined) => (v === undefined ? undefined : inRecordUnit(v, unit, units));
  const firm = way.measures.filter((m) => m.firm).map((m) => m.name);
  const rows = answer.data.effects
    .map((e) => ({ lever: e.lever, up: value(e.up?.[by]), down: value(e.down?.[by]) }))
    .sort((a, b) => size(b) - size(a));
  const most = Math.max(1e-9, ...rows.map(size));
  const now = value(answer.data.now[by]);
  return (
    <figure>
      <Choice
        label="What one step changes in"
        value={by}
        options={way.measures.map((m) => ({ value: m.name, label: m.name }))}
        onChange={setBy}
      />
      <p className="mt-2">
        Now {now === undefined ? "unknown" : `${number(now, 2)} ${shown}`}, predicted. Each bar is one step,
        the middle of scattered {way.words.many}.
      </p>
      <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-label="What one step changes">
        <table className="w-full text-left">
          <thead className="text-sm text-quiet">
            <tr>
              <th scope="col">One step of</th>
              <th scope="col" className="text-right">
                more
              </th>
              <th scope="col" className="w-[38%]">
                <span className="sr-only">drawn</span>
              </th>
              <th scope="col">less</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.lever.name} className="border-t border-line" data-effect={r.lever.name}>
                <th scope="row" className="py-1.5 pr-3 font-normal">
                  {r.lever.label}, {stepWords(r.lever, units)}
                  {r.lever.hard && (
                    <span className="block text-sm text-quiet">a fold: needs a new sheet</span>
                  )}
                </th>
                <td className="py-1.5 text-right whitespace-nowrap">{signed(r.up)}</td>
                <td className="px-2 py-1.5">
                  <svg
                    viewBox="-100 0 200 22"
                    preserveAspectRatio="none"
                    className="h-6 w-full"
                    aria-hidden="true"
                  >
                    <path d="M0 0V22" stroke="var(--ink)" />
                    <Bar v={r.up} most={most} y={2} solid />
                    <Bar v={r.down} most={most} y={12} />
                  </svg>
                </td>
                <td className="py-1.5 whitespace-nowrap">{signed(r.down)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <figcaption className="mt-2 text-sm text-quiet">
        Predicted, in {shown || "its own number"}. Full bars: one step more; outlined: one step less. To the
        right is more.
        {firm.length > 0 && !gauge?.firm && ` It jumps with small steps; trust ${firm.join(", ")} for those.`}
      </figcaption>
    </figure>
  );
}

const size = (r: { up: number | undefined; down: number | undefined }) =>
  Math.max(Math.abs(r.up ?? 0), Math.abs(r.down ?? 0));

function signed(v: number | undefined): string {
  if (v === undefined) return "–";
  const s = number(v, 2);
  return v > 0 && s !== "0" ? `+${s}` : s;
}

function Bar({ v, most, y, solid }: { v: number | undefined; most: number; y: number; solid?: boolean }) {
  if (v === undefined) return null;
  const w = (97 * v) / most;
  return (
    <rect
      x={Math.min(0, w)}
      y={y}
      width={Math.abs(w)}
      height="8"
      fill={solid ? "var(--lavender)" : "none"}
      stroke="var(--lavender)"
      vectorEffect="non-scaling-stroke"
    />
  );
}
