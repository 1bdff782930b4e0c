import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { useState } from "react";
import { type Gauge, type Lever, type Setup, type Sweep } from "../../api/client";
import { question } from "../../api/queries";
import { Select } from "../../parts/controls";
import { useUnits } from "../../settings";
import { dialValue, inRecordUnit, knobValue, number, recordUnit } from "../../units";
import { useConditions } from "../../parts/conditions";
import { polyline, useWidth } from "../../parts/drawing";
import type { Ready } from "../frame/useBench";

/** One knob over its range, or two together. */
export function Sweeps({ ready, setup }: { ready: Ready; setup: Setup }) {
  const { way } = ready;
  const [how] = useConditions(way);
  const [lever, setLever] = useState(way.sweep[0] ?? "");
  const [second, setSecond] = useState(way.sweep[1] ?? "");
  const [by, setBy] = useState(way.measures[0]?.name ?? "");
  const id = ready.build.pattern;
  const levers = useQuery(question.levers(id, setup, how));
  const answer = useQuery(question.sweep(id, setup, how, lever, second));
  const gauge = way.measures.find((m) => m.name === by) ?? {
    name: by,
    unit: "",
    firm: false,
    shown: false,
    less: false,
  };
  const options = (levers.data ?? []).map((l) => ({ value: l.name, label: l.label }));
  return (
    <div>
      <div className="grid gap-3 sm:grid-cols-3">
        <Select label="Knob" value={lever} options={options} onChange={setLever} />
        <Select
          label="Together with"
          value={second}
          options={[{ value: "", label: "nothing else" }, ...options.filter((o) => o.value !== lever)]}
          onChange={setSecond}
        />
        <Select
          label="Measured by"
          value={by}
          options={way.measures.map((m) => ({ value: m.name, label: m.name }))}
          onChange={setBy}
        />
      </div>
      {answer.error && <p className="mt-2">{answer.error.message}</p>}
      {answer.data &&
        (answer.data.second ? (
          <Pair sweep={answer.data} gauge={gauge} />
        ) : (
          <Curve sweep={answer.data} gauge={gauge} many={way.words.many} />
        ))}
    </div>
  );
}

function useMeasure(gauge: Gauge) {
  const units = useUnits();
  return {
    units,
    unit: recordUnit(gauge.unit, units),
    of: (v: number) => inRecordUnit(v, gauge.unit, units),
  };
}

function Curve({ sweep, gauge, many }: { sweep: Sweep; gauge: Gauge; many: string }) {
  const { units, unit, of } = useMeasure(gauge);
  const { box, width } = useWidth(800);
  const height = 340;
  const l = sweep.lever;
  const points = sweep.points.flatMap((p): [number, number][] => {
    const v = p.measures?.[gauge.name];
    return v === undefined ? [] : [[p.at, of(v)]];
  });
  const values = points.map((p) => p[1]);
  const x = scaleLinear([l.min, l.max], [56, width - 16]);
  const y = scaleLinear([Math.min(0, ...values), Math.max(0.1, ...values)], [height - 48, 20]).nice();
  const most = sweep.most[gauge.name];
  const best = points.find((p) => p[0] === most);
  const word = gauge.less ? "Least" : "Most";
  return (
    <figure className="mt-3">
      <div ref={box}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label={`${gauge.name} over ${l.label}. ${best ? `${word}, ${number(best[1], 2)} ${unit}, at ${knobValue(best[0], l.unit, units)}.` : ""}`}
          className="w-full"
        >
          {x.ticks(8).map((v) => (
            <g key={v}>
              <path d={`M${x(v)} 20V${height - 48}`} stroke="var(--line)" />
              <text x={x(v)} y={height - 28} textAnchor="middle" fontSize="14" fill="var(--quiet)">
                {dialValue(v, l.unit, true, units)[0]}
              </text>
            </g>
          ))}
          {y.ticks(5).map((v) => (
            <g key={v}>
              <path d={`M56 ${y(v)}H${width - 16}`} stroke="var(--line)" />
              <text x={48} y={y(v) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
                {number(v, 3)}
              </text>
            </g>
          ))}
          <text x={6} y={14} fontSize="14" fill="var(--ink)">
            {gauge.name}
            {unit && `, ${unit}`}
          </text>
          <text x={width - 16} y={height - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
            {l.label}
            {l.unit &&
              `, ${l.unit === "deg" ? "degrees" : l.unit === "mm" ? units : l.unit === "part" ? "% of the way" : l.unit}`}
          </text>
          <path
            d={polyline(points.map(([a, b]) => [x(a), y(b)]))}
            fill="none"
            stroke="var(--lavender)"
            strokeWidth="4"
            strokeDasharray="0.5 7"
            strokeLinecap="round"
          />
          <path d={`M${x(l.value)} 20V${height - 48}`} stroke="var(--ink)" strokeWidth="2" />
          <text x={x(l.value) + 6} y={34} fontSize="14" fontWeight="700" fill="var(--ink)">
            now
          </text>
        </svg>
      </div>
      <figcaption className="text-sm text-quiet">
        Predicted; each point is the middle of scattered {many}.{" "}
        {points.length < sweep.points.length && "Where there is no line it cannot be folded. "}
        {best && `${word} at ${knobValue(best[0], l.unit, units)}.`}
      </figcaption>
      <Table sweep={sweep} gauge={gauge} of={of} />
    </figure>
  );
}

function Table({ sweep, gauge, of }: { sweep: Sweep; gauge: Gauge; of: (v: number) => number }) {
  const { units } = useMeasure(gauge);
  return (
    <details>
      <summary>The same as a table</summary>
      <div className="mt-1 max-h-52 overflow-auto" tabIndex={0} role="region" aria-label="Sweep as a table">
        <table>
          <tbody>
            {sweep.points.map((p) => (
              <tr key={`${p.at} ${p.second ?? ""}`} className="border-t border-line">
                <th scope="row" className="pr-6 text-right font-normal">
                  {knobValue(p.at, sweep.lever.unit, units)}
                  {sweep.second && `, ${knobValue(p.second ?? 0, sweep.second.unit, units)}`}
                </th>
                <td className="text-right">{shown(p.measures?.[gauge.name], of)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

const shown = (v: number | undefined, of: (v: number) => number) =>
  v === undefined ? "–" : number(of(v), 2);

/** Two knobs together: numbers on tones, so that no tone stands alone. */
function Pair({ sweep, gauge }: { sweep: Sweep; gauge: Gauge }) {
  const { units, unit, of } = useMeasure(gauge);
  const second = sweep.second as Lever;
  const rows = [...new Set(sweep.points.map((p) => p.second ?? 0))].sort((a, b) => b - a);
  const columns = [...new Set(sweep.points.map((p) => p.at))].sort((a, b) => a - b);
  const values = sweep.points.flatMap((p) => p.measures?.[gauge.name] ?? []).map(of);
  const [lo, hi] = [Math.min(...values), Math.max(...values)];
  return (
    <figure className="mt-3">
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Two knobs together">
        <table className="w-full border-collapse text-center text-sm">
          <tbody>
            {rows.map((r) => (
              <tr key={r}>
                <th scope="row" className="pr-2 text-right font-normal whitespace-nowrap text-quiet">
                  {knobValue(r, second.unit, units)}
                </th>
                {columns.map((c) => {
                  const p = sweep.points.find((q) => q.at === c && (q.second ?? 0) === r);
                  const v = p?.measures?.[gauge.name];
                  const part = v === undefined ? 0 : (of(v) - lo) / Math.max(1e-9, hi - lo);
                  return (
                    <td
                      key={c}
                      className="border border-ground p-1.5"
                      style={{
                        background:
                          v === undefined
                            ? "transparent"
                            : `color-mix(in srgb, var(--lavender) ${Math.round(10 + 45 * part)}%, var(--panel))`,
                      }}
                    >
                      {v === undefined ? (
                        "–"
                      ) : (
                        <span className={part > 0.98 ? "font-bold underline" : ""}>{number(of(v))}</span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
            <tr>
              <td />
              {columns.map((c) => (
                <th key={c} scope="col" className="font-normal whitespace-nowrap text-quiet">
                  {knobValue(c, sweep.lever.unit, units)}
                </th>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <figcaption className="mt-1 text-sm text-quiet">
        Predicted {gauge.name}
        {unit && `, ${unit}`}: across, {sweep.lever.label}; upwards, {second.label}. The most is underlined.
      </figcaption>
    </figure>
  );
}
