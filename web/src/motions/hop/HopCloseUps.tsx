import { memo } from "react";
import type { LeapDrawing } from "./types";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import { Toy } from "./HopChart";
import type { Frame } from "./hopPose";

const wide = 360;
const high = 170;

/** The toy from the side, as large as it goes: where the finger presses, how far the pleat is open. */
export function Pleat({ hop, frame, pressed }: { hop: LeapDrawing; frame: Frame; pressed: boolean }) {
  const { pose } = frame;
  const units = useUnits();
  // It stays where it is while it flies: only its shape and pitch are looked at here.
  const xs = [pose.rear, pose.catch, pose.hip, pose.nose].map((p) => p.x);
  const ys = [pose.rear, pose.catch, pose.hip, pose.nose].map((p) => p.y);
  const size = 1.25 * (hop.body_m + hop.middle_m);
  const scale = Math.min((wide - 40) / size, (high - 50) / (0.62 * size));
  const [cx, cy] = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
  const onTable = Math.min(...ys) > -1e-6 && pose.catch.y < 1e-6;
  const base = onTable ? high - 40 : high / 2;
  const X = (m: number) => wide / 2 + (m - cx) * scale;
  const Y = (m: number) => base - (m - (onTable ? 0 : cy)) * scale;
  const open = frame.open_deg;
  const gap = 1000 * (hop.foot_m - hop.middle_m);
  return (
    <figure data-pleat="">
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        className="w-full"
        role="img"
        aria-label={`The toy from the side; its second fold is open by ${number(open, 0)}°`}
      >
        {onTable && <path d={`M10 ${base}H${wide - 10}`} stroke="var(--ink)" strokeWidth="1.5" />}
        <Toy pose={pose} X={X} Y={Y} thick={5} />
        {pressed && (
          <g>
            <path
              d={`M${X(pose.hip.x + hop.press_mm / 1000)} ${Y(pose.hip.y) - 48}v34m-8 -10l8 10l8 -10`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="3"
            />
            <text
              x={X(pose.hip.x + hop.press_mm / 1000) + 14}
              y={Y(pose.hip.y) - 36}
              fontSize="14"
              fill="var(--ink)"
            >
              finger
            </text>
          </g>
        )}
        <text x={X(pose.hip.x) - 6} y={Y(pose.hip.y) - 12} textAnchor="end" fontSize="14" fill="var(--quiet)">
          hip
        </text>
        <text
          x={X(pose.nose.x)}
          y={Y(pose.nose.y) - 14}
          textAnchor="middle"
          fontSize="14"
          fill="var(--quiet)"
        >
          nose
        </text>
        {onTable && (
          <text x={X(pose.catch.x)} y={base + 18} textAnchor="middle" fontSize="14" fill="var(--quiet)">
            second fold
          </text>
        )}
      </svg>
      <figcaption className="text-sm text-quiet">
        From the side{pressed ? "" : ", as it leaves the table at the latest"}. Second fold open by{" "}
        {number(open, 0)}°; hip to second fold {smallLength(1000 * hop.middle_m, units)}, then{" "}
        {smallLength(1000 * hop.foot_m, units)} to the rear edge, which {gap > 0 ? "passes" : "ends short of"}{" "}
        the hip by {smallLength(Math.abs(gap), units)}.
      </figcaption>
    </figure>
  );
}

/** The toy from above: what touches the table, where it balances, where the finger presses. */
export const Feet = memo(FromAbove);

function FromAbove({ hop }: { hop: LeapDrawing }) {
  const points = [...hop.outline.flat(), ...hop.feet.map((f) => [f.x, f.y])];
  const xs = points.map((p) => p[0] ?? 0);
  const ys = points.map((p) => p[1] ?? 0);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((wide - 30) / Math.max(1, x1 - x0), (high - 30) / Math.max(1, y1 - y0));
  // The nose points to the right; its right side is below.
  const X = (v: number) => wide / 2 + (v - (x0 + x1) / 2) * scale;
  const Y = (v: number) => high / 2 + (v - (y0 + y1) / 2) * scale;
  const poly = (ps: number[][]) =>
    ps.map(([x, y]) => `${X(x ?? 0).toFixed(1)},${Y(y ?? 0).toFixed(1)}`).join(" ");
  return (
    <figure data-feet="">
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        className="w-full"
        role="img"
        aria-label="The toy from above, with the polygon of what touches the table"
      >
        {hop.outline.map((p, i) => (
          <polygon key={i} points={poly(p)} fill="var(--panel)" stroke="var(--quiet)" />
        ))}
        <polygon
          points={poly(hop.hull)}
          fill="var(--tide)"
          fillOpacity="0.15"
          stroke="var(--tide)"
          strokeDasharray="6 3"
        />
        {hop.feet.map((f, i) => (
          <circle key={i} cx={X(f.x)} cy={Y(f.y)} r="3.5" fill="var(--tide)" />
        ))}
        <circle
          cx={X(hop.whole_mm)}
          cy={Y(0)}
          r="6"
          fill="var(--ground)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
        <path
          d={`M${X(hop.press_mm) - 6} ${Y(0) - 6}l12 12m0 -12l-12 12`}
          stroke="var(--ink)"
          strokeWidth="2.5"
        />
      </svg>
      <figcaption className="text-sm text-quiet">
        From above, nose to the right. Dashed: what touches the table, pressed down. ○ centre of mass, ✕ the
        finger: both must lie inside.
      </figcaption>
    </figure>
  );
}
