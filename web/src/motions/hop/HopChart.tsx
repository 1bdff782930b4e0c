import { scaleLinear } from "d3-scale";
import type { LeapDrawing } from "./types";
import type { Conditions } from "../../parts/conditions";
import { polyline, useWidth } from "../../parts/drawing";
import { useUnits } from "../../settings";
import { inRecordUnit, number, recordUnit } from "../../units";
import type { Pose } from "./hopPose";
import { Legend, PerfectSign } from "../Legend";

const pad = { left: 46, right: 20, top: 30, bottom: 46 };

/** The arc of a hop from the side, to scale, with its band, what is in the way, and where hops really landed. */
export function HopChart({
  hop,
  pose,
  how,
  words,
  measured = [],
  name = "predicted",
}: {
  hop: LeapDrawing;
  pose: Pose;
  how: Conditions;
  words: string;
  measured?: number[] | undefined;
  name?: string | undefined;
}) {
  const units = useUnits();
  const { box, width } = useWidth(820);
  const is = (k: string) => how[k] ?? 0;
  const side = hop.backward ? -1 : 1;
  const long = hop.body_m + hop.middle_m;
  const xs = [
    -hop.middle_m - hop.foot_m,
    hop.body_m,
    ...hop.band.map((b) => b.x),
    ...hop.path.map((p) => p.x + side * long * 0.4),
    ...hop.perfect.map((p) => p.x),
    ...hop.ghosts.flatMap((g) => g.path.map((p) => p.x)),
    ...measured.map((m) => side * m),
    ...(is("rope_at") > 0 ? [side * is("rope_at") * 1.1] : []),
    ...(is("gap") > 0 ? [side * is("gap") * 1.1] : []),
    ...(is("ring_at") > 0 ? [side * (is("ring_at") + is("ring"))] : []),
  ];
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  const below = is("drop") > 0 ? -is("drop") : 0;
  const top = Math.max(
    0.03,
    long * 0.6,
    ...hop.band.map((b) => b.hi),
    ...hop.path.map((p) => p.y + long * 0.3),
    ...hop.perfect.map((p) => p.y),
    ...hop.ghosts.flatMap((g) => g.path.map((p) => p.y)),
    is("rope") * 1.15,
  );
  // One scale for both directions: angles and the toy look as they are.
  const inner = width - pad.left - pad.right;
  const perM = Math.min(inner / (to - from), 380 / (top - below));
  const height = Math.round((top - below) * perM) + pad.top + pad.bottom;
  const shift = (inner - (to - from) * perM) / 2;
  const X = (m: number) => pad.left + shift + (m - from) * perM;
  const Y = (m: number) => pad.top + (top - m) * perM;
  const shown = (m: number) => inRecordUnit(m, "cm", units);
  const metres = (v: number) => v / inRecordUnit(1, "cm", units);
  const ticksX = scaleLinear([shown(from), shown(to)], [0, 1]).ticks(Math.max(3, width / 110));
  const ticksY = scaleLinear([shown(below), shown(top)], [0, 1]).ticks(5);
  const path = (ps: { x: number; y: number }[]) => polyline(ps.map((p) => [X(p.x), Y(p.y)]));
  const band = polyline([
    ...hop.band.map((b): [number, number] => [X(b.x), Y(b.hi)]),
    ...[...hop.band].reverse().map((b): [number, number] => [X(b.x), Y(b.lo)]),
  ]);
  const last = hop.path.at(-1);
  const unit = recordUnit("cm", units);
  return (
    <figure ref={box}>
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={words} className="w-full" data-hop="">
        {ticksX.map((v) => (
          <g key={v}>
            <path d={`M${X(metres(v))} ${pad.top}V${Y(below)}`} stroke="var(--line)" />
            <text x={X(metres(v))} y={Y(below) + 18} textAnchor="middle" fontSize="14" fill="var(--quiet)">
              {number(v, 3)}
            </text>
          </g>
        ))}
        {ticksY.map((v) => (
          <g key={v}>
            <path d={`M${pad.left} ${Y(metres(v))}H${width - pad.right}`} stroke="var(--line)" />
            <text x={pad.left - 8} y={Y(metres(v)) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
              {number(v, 3)}
            </text>
          </g>
        ))}
        <text x={4} y={16} fontSize="14" fill="var(--ink)">
          height, {unit}
        </text>
        <text x={width - pad.right} y={height - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
          {side > 0 ? "ahead" : "ahead of where it stood; it leaps back"}, {unit}
        </text>
        <path d={`${band}Z`} fill="var(--lavender)" fillOpacity="0.16" />
        {hop.ghosts.map((g) => (
          <path
            key={g.name}
            d={path(g.path)}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="1.5"
            strokeDasharray="5 3"
          />
        ))}
        <Table below={below} X={X} Y={Y} from={from} to={to} side={side} gap={is("gap")} long={long} />
        {is("rope_at") > 0 && (
          <g data-rope="">
            <path
              d={`M${X(side * is("rope_at"))} ${Y(0)}V${Y(is("rope"))}`}
              stroke="var(--ink)"
              strokeDasharray="2 3"
            />
            <circle cx={X(side * is("rope_at"))} cy={Y(is("rope"))} r="5" fill="var(--ink)" />
            <text x={X(side * is("rope_at")) + 8} y={Y(is("rope")) - 6} fontSize="14" fill="var(--ink)">
              rope
            </text>
          </g>
        )}
        {is("ring_at") > 0 && (
          <g data-ring="">
            <path
              d={`M${X(side * (is("ring_at") - is("ring")))} ${Y(below) - 3}H${X(side * (is("ring_at") + is("ring")))}`}
              stroke="var(--ink)"
              strokeWidth="7"
            />
            <text
              x={X(side * is("ring_at"))}
              y={Y(below) - 10}
              textAnchor="middle"
              fontSize="14"
              fill="var(--ink)"
            >
              ring
            </text>
          </g>
        )}
        <path d={path(hop.perfect)} fill="none" stroke="var(--lavender)" strokeWidth="1.2" data-perfect="" />
        <path
          d={path(hop.path)}
          fill="none"
          stroke="var(--lavender)"
          strokeWidth="4"
          strokeDasharray="0.5 7"
          strokeLinecap="round"
          data-path=""
        />
        {last && (
          <text
            x={Math.max(pad.left + 40, Math.min(X(last.x), width - 60))}
            y={Y(0) - 12}
            textAnchor="middle"
            fontSize="14"
            fontWeight="700"
            fill="var(--lavender)"
          >
            {name}
          </text>
        )}
        {measured.map((m, i) => (
          <circle
            key={i}
            cx={X(side * m)}
            cy={Y(below) - 4 - (i % 4) * 3}
            r="4.5"
            fill="var(--tide)"
            stroke="var(--ground)"
          />
        ))}
        <Toy pose={pose} X={X} Y={Y} />
        <Arrow x={X(side > 0 ? from : to)} y={pad.top + 14} side={side} unsure={hop.unsure} />
      </svg>
      <Legend
        path="predicted path of the centre of mass, the middle one of many hops; the band holds eight of ten"
        ghosts={hop.ghosts.length > 0}
        measured={measured.length}
      >
        <PerfectSign>a perfect hop</PerfectSign>
      </Legend>
    </figure>
  );
}

/** The toy in profile: body with its head, middle and foot of the pleat. */
export function Toy({
  pose,
  X,
  Y,
  thick = 3,
}: {
  pose: Pose;
  X: (m: number) => number;
  Y: (m: number) => number;
  thick?: number;
}) {
  const at = ({ x, y }: { x: number; y: number }) => `${X(x).toFixed(1)} ${Y(y).toFixed(1)}`;
  return (
    <g data-pose="">
      <path
        d={`M${at(pose.rear)}L${at(pose.catch)}L${at(pose.hip)}L${at(pose.nose)}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={thick}
        strokeLinejoin="round"
      />
      <circle cx={X(pose.nose.x)} cy={Y(pose.nose.y)} r={thick * 1.4} fill="var(--ink)" />
      <circle
        cx={X(pose.com.x)}
        cy={Y(pose.com.y)}
        r={thick * 1.6}
        fill="var(--ground)"
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
    </g>
  );
}

function Table({
  below,
  X,
  Y,
  from,
  to,
  side,
  gap,
  long,
}: {
  below: number;
  X: (m: number) => number;
  Y: (m: number) => number;
  from: number;
  to: number;
  side: number;
  gap: number;
  long: number;
}) {
  const line = (a: number, b: number, y: number) => (
    <path d={`M${X(a)} ${Y(y)}H${X(b)}`} stroke="var(--ink)" strokeWidth="2" />
  );
  // Its front edge lies where the toy ends.
  const edge = side > 0 ? Math.min(to, long) : Math.max(from, -long * 0.6);
  if (below < 0) {
    return (
      <g>
        {side > 0 ? line(from, edge, 0) : line(edge, to, 0)}
        <path d={`M${X(edge)} ${Y(0)}V${Y(below)}`} stroke="var(--ink)" strokeWidth="2" />
        {line(from, to, below)}
      </g>
    );
  }
  if (gap > 0) {
    const [a, b] = side > 0 ? [0.12 * gap, gap] : [-gap, -0.12 * gap];
    return (
      <g data-gap="">
        {line(from, a, 0)}
        {line(b, to, 0)}
        <text x={X((a + b) / 2)} y={Y(0) + 34} textAnchor="middle" fontSize="14" fill="var(--ink)">
          gap
        </text>
      </g>
    );
  }
  return line(from, to, 0);
}

function Arrow({ x, y, side, unsure }: { x: number; y: number; side: number; unsure: boolean }) {
  const end = side > 0 ? "start" : "end";
  return (
    <g data-direction={unsure ? "unsure" : side > 0 ? "forward" : "backward"}>
      <path
        d={`M${x} ${y}h${side * 44}m${-side * 10} -7l${side * 10} 7l${-side * 10} 7`}
        fill="none"
        stroke="var(--lavender)"
        strokeWidth="3"
        strokeDasharray={unsure ? "3 4" : undefined}
      />
      <text
        x={x + side * 52}
        y={y + 5}
        textAnchor={end}
        fontSize="15"
        fill="var(--lavender)"
        stroke="var(--ground)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {unsure ? "which way cannot be told" : side > 0 ? "forward" : "backward"}
      </text>
    </g>
  );
}
