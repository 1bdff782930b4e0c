import { scaleLinear } from "d3-scale";
import { useEffect, useRef, useState } from "react";
import type { Moving, TrialRecord, Tweak } from "../api/client";
import { useUnits } from "../settings";
import { inRecordUnit, number, recordUnit, recordValue } from "../units";

const rowHeight = 46;
const left = 72;
const right = 24;

/** Every trial as a dot on what was read of it, a row for each tweak. */
export function TrialChart({
  tweaks,
  chosen,
  record,
  way,
}: {
  tweaks: Tweak[];
  chosen: number;
  record: TrialRecord;
  way: Moving;
}) {
  const units = useUnits();
  const frame = useRef<HTMLElement>(null);
  const [width, setWidth] = useState(860);
  useEffect(() => {
    const box = frame.current;
    if (!box) return undefined;
    const watch = new ResizeObserver(() => setWidth(Math.max(300, box.clientWidth)));
    watch.observe(box);
    return () => watch.disconnect();
  }, []);
  const of = (v: number) => inRecordUnit(v, record.unit, units);
  const rows = tweaks.flatMap((t) => {
    const stats = t.stats[record.id];
    return stats ? [{ ...t, read: stats }] : [];
  });
  if (rows.length === 0) return null;
  const all = rows.flatMap((t) => t.trials.flatMap((x) => x.read?.[record.id] ?? [])).map(of);
  const x = scaleLinear([Math.min(0, ...all), Math.max(...all)], [left, width - right]).nice();
  const height = rows.length * rowHeight + 46;
  const summary = rows
    .map((t) => `tweak ${t.no}: median ${recordValue(t.read.median, record.unit, units)} of ${t.read.n}`)
    .join("; ");
  return (
    <figure ref={frame}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`${record.label} by tweak. ${summary}`}
        className="w-full"
      >
        {x.ticks(width / 90).map((v) => (
          <g key={v}>
            <path d={`M${x(v)} 4V${height - 38}`} stroke="var(--line)" />
            <text x={x(v)} y={height - 20} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {number(v, 3)}
            </text>
          </g>
        ))}
        {rows.map((t, i) => {
          const y = 4 + rowHeight * (i + 0.5);
          const { q1, q3, median } = t.read;
          return (
            <g key={t.no}>
              <text
                x={left - 12}
                y={y + 5}
                textAnchor="end"
                fontSize="15"
                fontWeight={t.no === chosen ? 800 : 400}
                fill="var(--ink)"
              >
                tweak {t.no}
              </text>
              <rect
                x={x(of(q1))}
                y={y - 15}
                width={Math.max(1, x(of(q3)) - x(of(q1)))}
                height="30"
                fill="var(--tide)"
                fillOpacity="0.16"
                stroke="var(--tide)"
                strokeOpacity="0.5"
              />
              {t.trials.map((trial, k) =>
                trial.read?.[record.id] === undefined ? null : (
                  <circle
                    key={trial.id}
                    cx={x(of(trial.read[record.id] ?? 0))}
                    cy={y + ((k % 5) - 2) * 4}
                    r="4.5"
                    fill="var(--tide)"
                    stroke="var(--ground)"
                  />
                ),
              )}
              <path d={`M${x(of(median))} ${y - 19}v38`} stroke="var(--ink)" strokeWidth="3" />
            </g>
          );
        })}
        <path d={`M${left} ${height - 38}H${width - right}`} stroke="var(--ink)" />
        <text x={width - right} y={height - 3} textAnchor="end" fontSize="14" fill="var(--ink)">
          {record.label.toLowerCase()}
          {record.unit && `, ${recordUnit(record.unit, units)}`}
        </text>
      </svg>
      <figcaption className="text-sm text-quiet">
        Measured. Each dot is a {way.words.one}, the upright bar the median, the box the middle half of the{" "}
        {way.words.many}.
      </figcaption>
    </figure>
  );
}
