import { scaleLinear } from "d3-scale";
import type { FlightDrawing, Sample } from "./types";
import type { Conditions } from "../../parts/conditions";
import { moment } from "./moment";
import { polyline, useWidth } from "../../parts/drawing";
import { useUnits } from "../../settings";
import { Legend, PerfectSign } from "../Legend";
import { distance, hallUnit, inHallUnit, number } from "../../units";

export type Aspect = "side" | "plan" | "space";

interface Props {
  flight: FlightDrawing;
  /** The flight in words. */
  words: string;
  how: Conditions;
  aspect: Aspect;
  /** Moment shown, s. */
  at: number;
  /** Distances that were measured, m. */
  measured?: number[];
  /** What the path is of. */
  name?: string;
}

/** The path of a flight with its band, ghosts of earlier set-ups, and where throws really landed. */
export function FlightChart(props: Props) {
  const { flight, words, aspect, how, measured = [], name = "predicted" } = props;
  const units = useUnits();
  const { box, width } = useWidth(820);
  return (
    <div ref={box}>
      {aspect === "space" ? (
        <InSpace {...props} width={width} label={words} />
      ) : (
        <Flat {...props} width={width} label={words} name={name} />
      )}
      <Legend
        path="predicted: the middle one of many throws; the band holds eight of ten"
        ghosts={flight.ghosts.length > 0}
        measured={measured.length}
      >
        <PerfectSign>a perfect throw</PerfectSign>
        <li>
          thrown at {number(how["throw.speed"] ?? 0)} m/s, {number(how["throw.angle"] ?? 0)}°, from{" "}
          {distance(how["throw.height"] ?? 0, units)}
        </li>
      </Legend>
    </div>
  );
}

const pad = { left: 46, right: 16, top: 22, bottom: 44 };

function Flat({
  flight,
  how,
  aspect,
  at,
  measured = [],
  width,
  label,
  name,
}: Props & { width: number; label: string }) {
  const units = useUnits();
  const height = Math.round(Math.min(430, Math.max(240, width * 0.48)));
  const side = aspect === "side";
  const hall = (name: string) => how[`hall.${name}`] ?? 0;
  const room = {
    length_m: hall("length"),
    width_m: hall("width"),
    ceiling_m: hall("ceiling"),
    rope_at_m: hall("rope_at"),
    rope_m: hall("rope"),
  };
  const far = Math.max(
    1,
    flight.middle.distance_m,
    flight.meant.distance_m,
    flight.band.at(-1)?.x ?? 0,
    ...flight.ghosts.map((g) => g.path.at(-1)?.x ?? 0),
    ...measured,
    room.length_m < 60 ? room.length_m : 0,
    room.rope_at_m,
  );
  const back = Math.min(0, ...flight.path.map((p) => p.x));
  const x = scaleLinear(
    [inHallUnit(back, units), inHallUnit(far, units)],
    [pad.left, width - pad.right],
  ).nice();
  const all = [...flight.path, ...flight.perfect, ...flight.ghosts.flatMap((g) => g.path)];
  const top = Math.max(
    (how["throw.height"] ?? 0) * 1.25,
    ...all.map((p) => p.z),
    ...flight.band.map((b) => b.hi_z),
    room.ceiling_m < 12 ? room.ceiling_m : 0,
    room.rope_m,
  );
  const aside = Math.max(
    1,
    ...all.map((p) => Math.abs(p.y)),
    ...flight.band.flatMap((b) => [Math.abs(b.lo_y), Math.abs(b.hi_y)]),
  );
  const y = side
    ? scaleLinear([0, inHallUnit(top, units)], [height - pad.bottom, pad.top]).nice()
    : scaleLinear(
        [-inHallUnit(aside, units), inHallUnit(aside, units)],
        [pad.top, height - pad.bottom],
      ).nice();
  const X = (m: number) => x(inHallUnit(m, units));
  const Y = (m: number) => y(inHallUnit(m, units));
  const across = (p: Sample) => (side ? p.z : p.y);
  const path = (ps: Sample[]) => polyline(ps.map((p) => [X(p.x), Y(across(p))]));
  const band = polyline([
    ...flight.band.map((b): [number, number] => [X(b.x), Y(side ? b.hi_z : b.hi_y)]),
    ...[...flight.band].reverse().map((b): [number, number] => [X(b.x), Y(side ? b.lo_z : b.lo_y)]),
  ]);
  const floor = side ? Y(0) : height - pad.bottom;
  const now = moment(flight.path, at);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={label}
      className="w-full"
      data-flight={aspect}
    >
      {x.ticks(width / 90).map((v) => (
        <g key={v}>
          <path d={`M${x(v)} ${pad.top}V${floor}`} stroke="var(--line)" />
          <text x={x(v)} y={floor + 18} textAnchor="middle" fontSize="14" fill="var(--quiet)">
            {number(v, 3)}
          </text>
        </g>
      ))}
      {y.ticks(5).map((v) => (
        <g key={v}>
          <path d={`M${pad.left} ${y(v)}H${width - pad.right}`} stroke="var(--line)" strokeOpacity="0.6" />
          <text x={pad.left - 8} y={y(v) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
            {side ? v : Math.abs(v)}
          </text>
        </g>
      ))}
      <text x={6} y={14} fontSize="14" fill="var(--ink)">
        {side ? `height, ${hallUnit(units)}` : `left ↑ aside, ${hallUnit(units)} ↓ right`}
      </text>
      <text x={width - pad.right} y={height - 6} textAnchor="end" fontSize="14" fill="var(--ink)">
        distance, {hallUnit(units)}
      </text>
      <Walls room={room} side={side} X={X} Y={Y} width={width} height={height} floor={floor} />
      <path d={`${band}Z`} fill="var(--lavender)" fillOpacity="0.17" />
      {flight.ghosts.map((g) => (
        <g key={g.name}>
          <path d={path(g.path)} fill="none" stroke="var(--quiet)" strokeWidth="1.5" strokeDasharray="6 4" />
          {ghostName(g.path, X, (p) => Y(across(p)), g.name)}
        </g>
      ))}
      <Perfect d={path(flight.perfect)} />
      <Dotted d={path(flight.path)} />
      <path d={`M${pad.left} ${floor}H${width - pad.right}`} stroke="var(--ink)" />
      {side &&
        measured.map((m, i) => (
          <circle
            key={i}
            cx={X(m)}
            cy={floor}
            r="6"
            fill="var(--tide)"
            stroke="var(--ground)"
            data-measured=""
          />
        ))}
      <text
        x={Math.min(X(flight.path.at(-1)?.x ?? 0) + 12, width - 90)}
        y={Y(across(flight.path.at(-1) ?? now)) - 14}
        fontSize="15"
        fontWeight="700"
        fill="var(--lavender)"
      >
        {name}
      </text>
      <g transform={`translate(${X(now.x)} ${Y(across(now))}) rotate(${side ? -now.pitch : now.heading})`}>
        <path
          d={side ? "M-17 -5L17 0L-17 2L-12 8L-17 2Z" : "M-15 -11L17 0L-15 11Z"}
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      </g>
      {side && (
        <g transform={`translate(${X(now.x)} ${Y(across(now))})`}>
          <path
            d={`M0 0L${60 * Math.cos(slope(flight.path, at))} ${-60 * Math.sin(slope(flight.path, at))}`}
            stroke="var(--ink)"
            strokeWidth="1"
            strokeDasharray="2 3"
          />
        </g>
      )}
    </svg>
  );
}

/** A predicted path: dotted, so that it is told from what was measured without colour. */
function Dotted({ d }: { d: string }) {
  return (
    <path
      d={d}
      fill="none"
      stroke="var(--lavender)"
      strokeWidth="5"
      strokeDasharray="0.5 9"
      strokeLinecap="round"
      data-path=""
    />
  );
}

/** The throw just as meant: a thin line, for no hand throws so. */
function Perfect({ d }: { d: string }) {
  return <path d={d} fill="none" stroke="var(--lavender)" strokeWidth="1.2" data-perfect="" />;
}

function ghostName(path: Sample[], X: (m: number) => number, Y: (p: Sample) => number, name: string) {
  const p = path.at(Math.round(path.length * 0.7));
  if (!p) return null;
  return (
    <text x={X(p.x) + 4} y={Y(p) - 6} fontSize="13" fill="var(--quiet)">
      {name}
    </text>
  );
}

function Walls({
  room,
  side,
  X,
  Y,
  width,
  height,
  floor,
}: {
  room: Record<"length_m" | "width_m" | "ceiling_m" | "rope_at_m" | "rope_m", number>;
  side: boolean;
  X: (m: number) => number;
  Y: (m: number) => number;
  width: number;
  height: number;
  floor: number;
}) {
  const wall = room.length_m ? X(room.length_m) : Infinity;
  const parts = [];
  if (wall < width) {
    parts.push(<path key="wall" d={`M${wall} ${pad.top}V${floor}`} stroke="var(--ink)" strokeWidth="4" />);
  }
  if (side && room.ceiling_m && Y(room.ceiling_m) > 0) {
    parts.push(
      <path
        key="roof"
        d={`M${pad.left} ${Y(room.ceiling_m)}H${width - pad.right}`}
        stroke="var(--ink)"
        strokeWidth="4"
      />,
    );
  }
  if (!side && room.width_m) {
    for (const s of [-1, 1]) {
      const v = Y((s * room.width_m) / 2);
      if (v > pad.top && v < height - pad.bottom) {
        parts.push(
          <path key={s} d={`M${pad.left} ${v}H${width - pad.right}`} stroke="var(--ink)" strokeWidth="4" />,
        );
      }
    }
  }
  if (room.rope_at_m && room.rope_m) {
    const v = X(room.rope_at_m);
    parts.push(
      side ? (
        <g key="rope">
          <path d={`M${v} ${floor}V${Y(room.rope_m)}`} stroke="var(--ink)" strokeDasharray="2 4" />
          <circle cx={v} cy={Y(room.rope_m)} r="5" fill="var(--panel)" stroke="var(--ink)" strokeWidth="2" />
          <text x={v + 9} y={Y(room.rope_m) + 5} fontSize="13" fill="var(--ink)">
            rope
          </text>
        </g>
      ) : (
        <path key="rope" d={`M${v} ${pad.top}V${floor}`} stroke="var(--ink)" strokeDasharray="2 4" />
      ),
    );
  }
  return <>{parts}</>;
}

/** The path seen from behind the thrower's right shoulder, over the floor of the hall. */
function InSpace({ flight, how, at, width, label }: Props & { width: number; label: string }) {
  const units = useUnits();
  const height = Math.round(Math.min(460, Math.max(260, width * 0.52)));
  const all = [...flight.path, ...flight.perfect, ...flight.ghosts.flatMap((g) => g.path)];
  const far = Math.max(2, ...all.map((p) => p.x));
  const aside = Math.max(1.5, ...all.map((p) => Math.abs(p.y)));
  // A slanted view: ahead goes to the right and back, the right side comes forward.
  const flat = (p: { x: number; y: number; z: number }): [number, number] => [
    p.x + 0.35 * p.y,
    -p.z + 0.42 * p.y - 0.1 * p.x,
  ];
  const corners = [
    { x: 0, y: -aside, z: 0 },
    { x: far, y: -aside, z: 0 },
    { x: far, y: aside, z: 0 },
    { x: 0, y: aside, z: 0 },
  ];
  const spots = [...all, ...corners, { x: 0, y: 0, z: (how["throw.height"] ?? 0) + 0.2 }].map(flat);
  const [x0, x1] = [Math.min(...spots.map((s) => s[0])), Math.max(...spots.map((s) => s[0]))];
  const [y0, y1] = [Math.min(...spots.map((s) => s[1])), Math.max(...spots.map((s) => s[1]))];
  const k = Math.min((width - 60) / (x1 - x0), (height - 60) / (y1 - y0));
  const at2 = (p: { x: number; y: number; z: number }) => {
    const [a, b] = flat(p);
    return `${(30 + (a - x0) * k).toFixed(1)} ${(30 + (b - y0) * k).toFixed(1)}`;
  };
  const poly = (ps: { x: number; y: number; z: number }[]) =>
    ps.map((p, i) => `${i === 0 ? "M" : "L"}${at2(p)}`).join("");
  const floor = (p: Sample) => ({ ...p, z: 0 });
  const now = moment(flight.path, at);
  const posts = flight.path.filter((_, i) => i % Math.max(1, Math.round(flight.path.length / 12)) === 0);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={label}
      className="w-full"
      data-flight="space"
    >
      <path d={`${poly(corners)}Z`} fill="var(--panel)" stroke="var(--line)" />
      {Array.from({ length: Math.floor(inHallUnit(far, units)) + 1 }, (_, i) => i)
        .filter((i) => i % Math.max(1, Math.round(far / 10)) === 0)
        .map((i) => {
          const m = i / inHallUnit(1, units);
          const [a, b] = at2({ x: m, y: aside, z: 0 }).split(" ");
          return (
            <g key={i}>
              <path
                d={poly([
                  { x: m, y: -aside, z: 0 },
                  { x: m, y: aside, z: 0 },
                ])}
                stroke="var(--line)"
              />
              <text x={a} y={Number(b) + 16} fontSize="13" fill="var(--quiet)" textAnchor="middle">
                {i} {i === 0 ? hallUnit(units) : ""}
              </text>
            </g>
          );
        })}
      {flight.ghosts.map((g) => (
        <path
          key={g.name}
          d={poly(g.path)}
          fill="none"
          stroke="var(--quiet)"
          strokeWidth="1.5"
          strokeDasharray="6 4"
        />
      ))}
      <path
        d={poly(flight.path.map(floor))}
        fill="none"
        stroke="var(--quiet)"
        strokeWidth="3"
        strokeOpacity="0.5"
      />
      {posts.map((p) => (
        <path key={p.t} d={poly([p, floor(p)])} stroke="var(--line)" />
      ))}
      <Perfect d={poly(flight.perfect)} />
      <Dotted d={poly(flight.path)} />
      <path d={poly([now, floor(now)])} stroke="var(--ink)" />
      <g transform={`translate(${at2(now)})`}>
        <circle r="7" fill="var(--panel)" stroke="var(--ink)" strokeWidth="2" />
      </g>
    </svg>
  );
}

/** Slope of the path at a moment, up positive, for the line of the air. */
function slope(path: Sample[], t: number): number {
  const now = moment(path, t);
  return ((now.pitch - now.attack) * Math.PI) / 180;
}
