import { scaleLinear } from "d3-scale";
import { polyline, useWidth } from "../parts/drawing";
import { number } from "../units";
import { Legend } from "./Legend";

const pad = { left: 44, right: 16, top: 28, bottom: 42 };
const high = 250;

interface Spot {
  x: number;
  y: number;
}

/** One number against another, predicted, with its band, its limits and where it is now. */
export function CurveChart({
  curve,
  band,
  ghosts,
  measured = [],
  now,
  xTitle,
  yTitle,
  limit,
  level,
  path = "predicted; the band holds eight of ten",
  words,
}: {
  curve: Spot[];
  band: { x: number; lo: number; hi: number }[];
  ghosts: { name: string; curve: Spot[] }[];
  measured?: Spot[];
  now: Spot;
  xTitle: string;
  yTitle: string;
  /** Where it can go no further, and why. */
  limit?: { x: number; words: string };
  /** What it must stay above, and why. */
  level?: { y: number; words: string } | undefined;
  /** What the line is. */
  path?: string;
  words: string;
}) {
  const { box, width } = useWidth(420);
  const xs = [...curve, ...measured, now].map((p) => p.x).concat(band.map((b) => b.x));
  const ys = [...curve, ...measured].map((p) => p.y).concat(band.map((b) => b.hi));
  const X = scaleLinear([0, Math.max(1, ...xs)], [pad.left, width - pad.right]);
  const Y = scaleLinear([0, Math.max(1, ...ys) * 1.08], [high - pad.bottom, pad.top]);
  const line = (ps: Spot[]) => polyline(ps.map((p) => [X(p.x), Y(p.y)]));
  const area = polyline([
    ...band.map((b): [number, number] => [X(b.x), Y(b.hi)]),
    ...[...band].reverse().map((b): [number, number] => [X(b.x), Y(b.lo)]),
  ]);
  return (
    <figure ref={box}>
      <svg viewBox={`0 0 ${width} ${high}`} role="img" aria-label={words} className="w-full" data-curve="">
        {X.ticks(Math.max(3, width / 90)).map((v) => (
          <g key={v}>
            <path d={`M${X(v)} ${pad.top}V${Y(0)}`} stroke="var(--line)" />
            <text x={X(v)} y={Y(0) + 17} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {number(v, 2)}
            </text>
          </g>
        ))}
        {Y.ticks(4).map((v) => (
          <g key={v}>
            <path d={`M${pad.left} ${Y(v)}H${width - pad.right}`} stroke="var(--line)" />
            <text x={pad.left - 6} y={Y(v) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
              {number(v, 1)}
            </text>
          </g>
        ))}
        <text x={4} y={16} fontSize="14" fill="var(--ink)">
          {yTitle}
        </text>
        <text x={width - pad.right} y={high - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
          {xTitle}
        </text>
        <path d={`${area}Z`} fill="var(--lavender)" fillOpacity="0.16" />
        {ghosts.map((g) => (
          <path
            key={g.name}
            d={line(g.curve)}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="1.5"
            strokeDasharray="5 3"
          />
        ))}
        {limit && (
          <g data-binds="">
            <path
              d={`M${X(limit.x)} ${pad.top}V${Y(0)}`}
              stroke="var(--ink)"
              strokeWidth="1.5"
              strokeDasharray="8 4"
            />
            <text
              x={X(limit.x) + (X(limit.x) > width * 0.6 ? -6 : 6)}
              y={pad.top + 14}
              textAnchor={X(limit.x) > width * 0.6 ? "end" : "start"}
              fontSize="14"
              fill="var(--ink)"
              stroke="var(--ground)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {limit.words}
            </text>
          </g>
        )}
        {level && (
          <g data-stands="">
            <path
              d={`M${pad.left} ${Y(level.y)}H${width - pad.right}`}
              stroke="var(--ink)"
              strokeDasharray="8 4"
            />
            <text
              x={width - pad.right - 4}
              y={Y(level.y) - 5}
              textAnchor="end"
              fontSize="14"
              fill="var(--ink)"
              stroke="var(--ground)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {level.words}
            </text>
          </g>
        )}
        <path
          d={line(curve)}
          fill="none"
          stroke="var(--lavender)"
          strokeWidth="4"
          strokeDasharray="0.5 7"
          strokeLinecap="round"
        />
        {measured.map((m, i) => (
          <circle key={i} cx={X(m.x)} cy={Y(m.y)} r="4.5" fill="var(--tide)" stroke="var(--ground)" />
        ))}
        <circle cx={X(now.x)} cy={Y(now.y)} r="6" fill="var(--lavender)" />
      </svg>
      <Legend path={path} ghosts={ghosts.length > 0} measured={measured.length} />
    </figure>
  );
}
