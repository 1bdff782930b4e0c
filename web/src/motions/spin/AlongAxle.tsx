import { useId } from "react";
import type { FaceColours } from "../../parts/PaperPicture";
import type { WheelDrawing } from "./types";

/**
 * A wheel seen along its axle: its blades, where the breath meets it, which way it turns,
 * which blade is to be moved first.
 */
export function AlongAxle({
  wheel,
  colours,
  turned,
  moving,
  label,
}: {
  wheel: WheelDrawing;
  colours: FaceColours;
  /** Degrees that it has turned, clockwise. */
  turned: number;
  /** While it turns only the wheel is drawn. */
  moving: boolean;
  label: string;
}) {
  const id = useId();
  const r = wheel.radius_mm;
  const side = 1.42 * r;
  const u = side / 50;
  const clockwise = wheel.sense === "clockwise";
  // An arrow over a sixth of the turn, at the rim on the right.
  const at = (deg: number): [number, number] => [
    1.28 * r * Math.cos((deg * Math.PI) / 180),
    1.28 * r * Math.sin((deg * Math.PI) / 180),
  ];
  const [x1, y1] = at(clockwise ? -35 : 35);
  const [x2, y2] = at(clockwise ? 35 : -35);
  const heavy = (wheel.heavy_deg * Math.PI) / 180;
  return (
    <svg
      viewBox={`${-side} ${-side} ${2 * side} ${2 * side}`}
      role="img"
      aria-label={label}
      className="aspect-square w-full"
      data-wheel=""
    >
      <defs>
        <marker
          id={`${id}a`}
          viewBox="0 0 10 10"
          refX="6"
          refY="5"
          markerWidth="4.5"
          markerHeight="4.5"
          orient="auto"
        >
          <path d="M0 0L10 5L0 10Z" fill="var(--lavender)" />
        </marker>
      </defs>
      <circle r={r} fill="none" stroke="var(--line)" strokeWidth={0.5 * u} strokeDasharray={`${u} ${u}`} />
      <g transform={`rotate(${turned.toFixed(2)})`} data-turned={turned.toFixed(1)}>
        {wheel.blades.map((b, i) => (
          <polygon
            key={i}
            points={b.points.join(",")}
            fill={b.first && !moving ? "var(--caution)" : i % 2 === 0 ? colours.front : colours.back}
            stroke="#10302f"
            strokeWidth={0.5 * u}
            strokeLinejoin="round"
            data-blade={i + 1}
          />
        ))}
      </g>
      {wheel.jet && !moving && (
        <circle
          cx={wheel.jet.x}
          cy={wheel.jet.y}
          r={wheel.jet.radius_mm}
          fill="var(--lavender)"
          fillOpacity="0.14"
          stroke="var(--lavender)"
          strokeWidth={0.6 * u}
          strokeDasharray={`${0.1 * u} ${1.4 * u}`}
          strokeLinecap="round"
          data-jet=""
        />
      )}
      {!moving &&
        wheel.blades.map((b, i) => (
          <text
            key={i}
            x={b.at[0]}
            y={(b.at[1] ?? 0) + 1.6 * u}
            textAnchor="middle"
            fontSize={4.6 * u}
            fontWeight={b.first || b.odd ? 700 : 400}
            fill="var(--ink)"
          >
            {i + 1}
          </text>
        ))}
      {!moving && wheel.uneven_gmm > 0.01 && (
        <path
          d={`M0 0L${0.6 * r * Math.cos(heavy)} ${0.6 * r * Math.sin(heavy)}`}
          stroke="var(--ink)"
          strokeWidth={u}
          markerEnd={`url(#${id}a)`}
          data-heavy=""
        />
      )}
      {wheel.sense && !moving && (
        <path
          d={`M${x1} ${y1}A${1.28 * r} ${1.28 * r} 0 0 ${clockwise ? 1 : 0} ${x2} ${y2}`}
          fill="none"
          stroke="var(--lavender)"
          strokeWidth={1.2 * u}
          markerEnd={`url(#${id}a)`}
          data-sense={wheel.sense}
        />
      )}
      <circle r={1.1 * u} fill="#10302f" />
    </svg>
  );
}

/** The wheel from the side: its tip up, or down where it meets the air first. */
export function FromSide({ wheel, colours }: { wheel: WheelDrawing; colours: FaceColours }) {
  const ys = wheel.side.flatMap((s) => s.points.filter((_, i) => i % 2 === 1));
  const tall = Math.max(1, ...ys);
  const r = wheel.radius_mm;
  const m = 0.08 * r;
  return (
    <svg
      viewBox={`${-r - m} ${-m} ${2 * (r + m)} ${tall + 2 * m}`}
      role="img"
      aria-label={`From the side, tip ${wheel.side_up ? "up" : "down"}`}
      className="h-32 w-full"
      data-side=""
    >
      <g transform={wheel.side_up ? undefined : `translate(0 ${tall}) scale(1 -1)`}>
        {wheel.side.map((s, i) => (
          <polygon
            key={i}
            points={s.points.join(",")}
            fill={s.front ? colours.front : colours.back}
            stroke="#10302f"
            strokeWidth={r / 90}
            strokeLinejoin="round"
          />
        ))}
        <path
          d={`M0 0V${tall}`}
          stroke="#10302f"
          strokeWidth={r / 60}
          strokeDasharray={`${r / 20} ${r / 30}`}
        />
      </g>
    </svg>
  );
}
