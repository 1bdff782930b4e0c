import { scaleLinear } from "d3-scale";
import { useEffect, useRef, useState } from "react";
import type { Tweak } from "../api/client";
import { useUnits } from "../settings";
import { distance } from "../units";

const rowHeight = 46;
const left = 72;
const right = 24;
const metresPerFoot = 0.3048;

/** Every throw as a dot on the distance it reached, a row for each tweak. */
export function ThrowChart({ tweaks, chosen }: { tweaks: Tweak[]; chosen: number }) {
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
  const unit = units === "mm" ? 1 : metresPerFoot;
  const rows = tweaks.filter((t) => t.distance.n > 0);
  if (rows.length === 0) return null;
  const farthest = Math.max(...rows.map((t) => t.distance.best)) / unit;
  const x = scaleLinear([0, farthest], [left, width - right]).nice();
  const height = rows.length * rowHeight + 46;
  const summary = rows
    .map((t) => `tweak ${t.no}: median ${distance(t.distance.median, units)} of ${t.distance.n}`)
    .join("; ");
  return (
    <figure ref={frame}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Throws by tweak. ${summary}`}
        className="w-full"
      >
        {x.ticks(width / 90).map((v) => (
          <g key={v}>
            <path d={`M${x(v)} 4V${height - 38}`} stroke="var(--line)" />
            <text x={x(v)} y={height - 20} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {v}
            </text>
          </g>
        ))}
        {rows.map((t, i) => {
          const y = 4 + rowHeight * (i + 0.5);
          const { q1, q3, median } = t.distance;
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
                x={x(q1 / unit)}
                y={y - 15}
                width={Math.max(1, x(q3 / unit) - x(q1 / unit))}
                height="30"
                fill="var(--tide)"
                fillOpacity="0.16"
                stroke="var(--tide)"
                strokeOpacity="0.5"
              />
              {t.trials.map((trial, k) =>
                trial.distance_m === undefined ? null : (
                  <circle
                    key={trial.id}
                    cx={x(trial.distance_m / unit)}
                    cy={y + ((k % 5) - 2) * 4}
                    r="4.5"
                    fill="var(--tide)"
                    stroke="var(--ground)"
                  />
                ),
              )}
              <path d={`M${x(median / unit)} ${y - 19}v38`} stroke="var(--ink)" strokeWidth="3" />
            </g>
          );
        })}
        <path d={`M${left} ${height - 38}H${width - right}`} stroke="var(--ink)" />
        <text x={width - right} y={height - 3} textAnchor="end" fontSize="14" fill="var(--ink)">
          distance, {units === "mm" ? "m" : "ft"}
        </text>
      </svg>
      <figcaption className="text-sm text-quiet">
        Measured. Each dot is a throw, the upright bar the median, the box the middle half of the throws.
      </figcaption>
    </figure>
  );
}
