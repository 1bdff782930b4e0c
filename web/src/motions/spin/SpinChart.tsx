import { scaleLinear } from "d3-scale";
import type { TokenDrawing } from "./types";
import { polyline, useWidth } from "../../parts/drawing";
import { number } from "../../units";
import { Legend } from "../Legend";

const pad = { left: 46, right: 16, top: 28, bottom: 42 };
const high = 230;

/** How the rate of a spin falls, with its band and the rate at which it stands no more. */
export function SpinChart({ token, at, words }: { token: TokenDrawing; at: number; words: string }) {
  const { box, width } = useWidth(420);
  const end = Math.max(1, ...token.band.map((b) => b.t), ...token.curve.map((c) => c.t));
  const top = Math.max(1, ...token.band.map((b) => b.hi), ...token.curve.map((c) => c.rate));
  const X = scaleLinear([0, end], [pad.left, width - pad.right]);
  const Y = scaleLinear([0, top], [high - pad.bottom, pad.top]);
  const line = (ps: { t: number; rate: number }[]) => polyline(ps.map((p) => [X(p.t), Y(p.rate)]));
  const band = polyline([
    ...token.band.map((b): [number, number] => [X(b.t), Y(b.hi)]),
    ...[...token.band].reverse().map((b): [number, number] => [X(b.t), Y(b.lo)]),
  ]);
  const now = token.curve.findLast((c) => c.t <= at) ?? token.curve[0];
  return (
    <figure ref={box}>
      <svg viewBox={`0 0 ${width} ${high}`} role="img" aria-label={words} className="w-full" data-spin="">
        {X.ticks(Math.max(3, width / 90)).map((v) => (
          <g key={v}>
            <path d={`M${X(v)} ${pad.top}V${Y(0)}`} stroke="var(--line)" />
            <text x={X(v)} y={Y(0) + 17} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {number(v, 1)}
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
          turns a second
        </text>
        <text x={width - pad.right} y={high - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
          time, s
        </text>
        <path d={`${band}Z`} fill="var(--lavender)" fillOpacity="0.16" />
        {token.ghosts.map((g) => (
          <path
            key={g.name}
            d={line(g.curve)}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="1.5"
            strokeDasharray="5 3"
          />
        ))}
        {token.stands_at > 0 && token.stands_at < top && (
          <g data-stands="">
            <path
              d={`M${pad.left} ${Y(token.stands_at)}H${width - pad.right}`}
              stroke="var(--ink)"
              strokeDasharray="8 4"
            />
            <text
              x={width - pad.right - 4}
              y={Y(token.stands_at) - 5}
              textAnchor="end"
              fontSize="14"
              fill="var(--ink)"
              stroke="var(--ground)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              stands from here up
            </text>
          </g>
        )}
        <path
          d={line(token.curve)}
          fill="none"
          stroke="var(--lavender)"
          strokeWidth="4"
          strokeDasharray="0.5 7"
          strokeLinecap="round"
        />
        {now && <circle cx={X(Math.min(at, end))} cy={Y(now.rate)} r="6" fill="var(--lavender)" />}
      </svg>
      <Legend
        path={`predicted, the middle one of many spins, until ${token.ends}; the band holds eight of ten`}
        ghosts={token.ghosts.length > 0}
        measured={0}
      />
    </figure>
  );
}
