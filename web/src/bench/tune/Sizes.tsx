import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { Link } from "react-router";
import { type Sizes as Compared } from "../../api/client";
import { question } from "../../api/queries";
import { useUnits } from "../../settings";
import {
  inRecordUnit,
  length,
  number,
  outcomeRange,
  outcomeValue,
  recordUnit,
  recordValue,
  sheetSize,
} from "../../units";
import { useConditions } from "../../parts/conditions";
import { useWidth } from "../../parts/drawing";
import type { Ready } from "../frame/useBench";

/** The same pattern at several sizes: what is predicted, and what was logged of builds of it. */
export function Sizes({ ready }: { ready: Ready }) {
  const units = useUnits();
  const { build, way, setup } = ready;
  const [how] = useConditions(way);
  const answer = useQuery(question.compareSizes(build, setup, how));
  if (!answer.data) return <p>{answer.error ? answer.error.message : "Folding it at other sizes…"}</p>;
  const { sizes, advice } = answer.data;
  const outcomes = sizes.find((s) => s.outcomes.length > 0)?.outcomes ?? [];
  return (
    <div data-sizes="">
      <p className="max-w-prose text-lg" data-advice="">
        {advice}
      </p>
      <Chart sizes={sizes} />
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Sizes as a table">
        <table className="w-full text-left">
          <thead className="text-sm text-quiet">
            <tr>
              <th scope="col">Sheet</th>
              <th scope="col">Build</th>
              <th scope="col" className="text-right">
                Toy
              </th>
              {outcomes.map((o) => (
                <th key={o.id} scope="col" className="pl-4 text-right">
                  {o.label}, predicted
                </th>
              ))}
              <th scope="col" className="pl-4 text-right">
                {outcomes[0]?.label ?? "Reading"}, measured
              </th>
            </tr>
          </thead>
          <tbody>
            {sizes.map((s) => (
              <tr
                key={`${s.width_mm} ${s.build?.id ?? ""}`}
                className={`border-t border-line align-top ${s.here ? "bg-panel" : ""}`}
                data-size={Math.round(s.width_mm)}
              >
                <th scope="row" className="py-1.5 pr-3 font-normal whitespace-nowrap">
                  {sheetSize(s.width_mm, s.height_mm, units)}
                </th>
                <td className="py-1.5 pr-3">
                  {s.here ? (
                    "this build"
                  ) : s.build ? (
                    <Link className="underline underline-offset-4" to={`/bench/${s.build.id}/try`}>
                      {s.build.name}
                    </Link>
                  ) : (
                    <span className="text-quiet">{number(100 * s.scale, 0)} % of this</span>
                  )}
                  {s.warns.map((w) => (
                    <span key={w} className="mt-1 block max-w-72 bg-caution px-1 text-sm text-on-mark">
                      {w}
                    </span>
                  ))}
                </td>
                <td className="py-1.5 text-right whitespace-nowrap">{length(s.length_mm, units, 0)}</td>
                {s.outcomes.map((o) => (
                  <td key={o.id} className="py-1.5 pl-4 text-right">
                    <span className="title text-lavender">{outcomeValue(o.middle, o, units)}</span>
                    <span className="block text-sm text-quiet">{outcomeRange(o, units)}</span>
                  </td>
                ))}
                {s.outcomes.length === 0 && <td colSpan={outcomes.length}>cannot be folded so</td>}
                <td className="py-1.5 pl-4 text-right whitespace-nowrap">
                  {s.measured && (
                    <>
                      <span className="title text-tide">
                        {recordValue(s.measured.median, s.outcomes[0]?.unit ?? "", units)}
                      </span>
                      <span className="block text-sm text-quiet">n = {s.measured.n}</span>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/** The outcome that counts over the width of the sheet: bands predicted, dots measured. */
function Chart({ sizes }: { sizes: Compared["sizes"] }) {
  const units = useUnits();
  const { box, width } = useWidth(800);
  const rows = sizes.filter((s) => s.outcomes.length > 0);
  const first = rows[0]?.outcomes[0];
  if (!first) return null;
  const height = 250;
  const of = (v: number) => Math.abs(inRecordUnit(v, first.unit, units));
  const ends = (s: (typeof rows)[number]) => {
    const o = s.outcomes[0] ?? first;
    return [of(o.lo), of(o.middle), of(o.hi)] as const;
  };
  const most = Math.max(...rows.flatMap((s) => [...ends(s), of(s.measured?.median ?? 0)]));
  const wide = (mm: number) => (units === "mm" ? mm : mm / 25.4);
  const widest = Math.max(...rows.map((s) => wide(s.width_mm)));
  const x = scaleLinear([0, widest], [56, width - 24]).nice();
  const y = scaleLinear([0, most], [height - 44, 22]).nice();
  return (
    <figure className="my-2">
      <div ref={box}>
        <svg
          viewBox={`0 0 ${width} ${height}`}
          className="w-full"
          role="img"
          aria-label={`${first.label} over the width of the sheet`}
        >
          {x.ticks(width / 110).map((v) => (
            <g key={v}>
              <path d={`M${x(v)} 22V${height - 44}`} stroke="var(--line)" />
              <text x={x(v)} y={height - 26} textAnchor="middle" fontSize="14" fill="var(--quiet)">
                {number(v, 3)}
              </text>
            </g>
          ))}
          {y.ticks(4).map((v) => (
            <g key={v}>
              <path d={`M56 ${y(v)}H${width - 24}`} stroke="var(--line)" />
              <text x={48} y={y(v) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
                {number(v, 3)}
              </text>
            </g>
          ))}
          {rows.map((s) => {
            const [lo, mid, hi] = ends(s);
            const at = x(wide(s.width_mm));
            return (
              <g key={`${s.width_mm} ${s.build?.id ?? ""}`}>
                <path
                  d={`M${at} ${y(lo)}V${y(hi)}`}
                  stroke="var(--lavender)"
                  strokeWidth="3"
                  strokeDasharray="1 5"
                  strokeLinecap="round"
                />
                <path d={`M${at - 8} ${y(mid)}h16`} stroke="var(--lavender)" strokeWidth="3" />
                {s.measured && (
                  <circle
                    cx={at}
                    cy={y(of(s.measured.median))}
                    r="6"
                    fill="var(--tide)"
                    stroke="var(--ground)"
                  />
                )}
              </g>
            );
          })}
          <text x={6} y={14} fontSize="14" fill="var(--ink)">
            {first.label.toLowerCase()}
            {first.unit && `, ${recordUnit(first.unit, units)}`}
          </text>
          <text x={width - 24} y={height - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
            width of the sheet, {units}
          </text>
        </svg>
      </div>
      <figcaption className="text-sm text-quiet">
        Dotted: predicted, eight of ten, the bar its middle. Dots: measured medians.
      </figcaption>
    </figure>
  );
}
