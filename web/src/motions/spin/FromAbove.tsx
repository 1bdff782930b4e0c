import { useId, type KeyboardEvent } from "react";
import type { TokenDrawing } from "./types";
import { PaperPicture, type FaceColours } from "../../parts/PaperPicture";

/** Room round the toy for the hours of the clock, as a part of its reach. */
const room = 1.3;

/** The square about the spot that a token rests on. */
const viewOf = (t: TokenDrawing): [number, number, number, number] => {
  const r = room * t.radius_mm;
  return [t.support.x - r, t.support.y - r, 2 * r, 2 * r];
};

/** The toy alone, to lie under a clock. */
export function Plain({ token, colours }: { token: TokenDrawing; colours: FaceColours }) {
  return (
    <PaperPicture
      picture={token.picture}
      colours={colours}
      view={viewOf(token)}
      thin
      label=""
      className="h-full w-full"
    />
  );
}

/**
 * A token from above: where it rests, where its weight lies, which spot of the rim comes
 * nearest to the table, and how the weight wandered while it was folded.
 */
export function FromAbove({
  token,
  colours,
  turned,
  moving,
  label,
  onFound,
}: {
  token: TokenDrawing;
  colours: FaceColours;
  /** Degrees that it has turned, clockwise. */
  turned: number;
  /** While it turns only the toy is drawn. */
  moving: boolean;
  label: string;
  /** Called with the place that was pressed, mm on the picture. */
  onFound?: ((x: number, y: number) => void) | undefined;
}) {
  const id = useId();
  const view = viewOf(token);
  const [x, y, w] = view;
  const { x: sx, y: sy } = token.support;
  const u = w / 100;
  const hour = (h: number, r: number): [number, number] => [
    sx + r * Math.sin((h * Math.PI) / 6),
    sy - r * Math.cos((h * Math.PI) / 6),
  ];
  const off = token.offset_mm > 0.05;
  const [ax, ay] = hour(token.towards, token.radius_mm * 0.55);
  const trace = token.trace.filter((t) => t.off_mm < token.radius_mm);
  const press = onFound && {
    onClick: (e: React.MouseEvent<SVGSVGElement>) => {
      const m = e.currentTarget.getScreenCTM();
      if (!m) return;
      const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
      onFound(p.x, p.y);
    },
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === "Escape") (e.currentTarget as SVGSVGElement).blur();
    },
  };
  return (
    <svg
      viewBox={`${x} ${y} ${w} ${w}`}
      role="img"
      aria-label={label}
      className={`aspect-square w-full ${onFound ? "cursor-crosshair" : ""}`}
      data-token=""
      {...press}
    >
      {[12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((h) => {
        const [tx, ty] = hour(h, w * 0.465);
        return (
          <text
            key={h}
            x={tx}
            y={ty + 1.4 * u}
            textAnchor="middle"
            fontSize={4 * u}
            fill="var(--quiet)"
            fontWeight={h === 12 ? "700" : "400"}
          >
            {h}
          </text>
        );
      })}
      <g transform={`rotate(${turned.toFixed(2)} ${sx} ${sy})`} data-turned={turned.toFixed(1)}>
        <svg x={x} y={y} width={w} height={w} viewBox={`${x} ${y} ${w} ${w}`} overflow="visible">
          <g stroke="#10302f" strokeLinejoin="round" strokeWidth={0.35 * u}>
            {token.picture.faces.map((f, i) => (
              <g key={i}>
                <polygon
                  points={f.points.join(",")}
                  fill={f.front ? colours.front : colours.back}
                  stroke={f.plain ? "none" : undefined}
                />
                {f.edges && <path d={edges(f.edges)} fill="none" />}
              </g>
            ))}
          </g>
          {token.rim.map((r, i) => (
            <circle
              key={i}
              cx={r.at.x}
              cy={r.at.y}
              r={1.5 * u}
              fill={r.first ? "var(--caution)" : "var(--ground)"}
              stroke="var(--ink)"
              strokeWidth={0.4 * u}
            />
          ))}
        </svg>
      </g>
      {!moving && (
        <g>
          {trace.length > 1 && (
            <g data-trace="">
              <path
                d={trace.map((t, i) => `${i === 0 ? "M" : "L"}${t.at.x} ${t.at.y}`).join("")}
                fill="none"
                stroke="#10302f"
                strokeWidth={0.4 * u}
                strokeDasharray={`${1 * u} ${1 * u}`}
              />
              {trace.map((t) => (
                <circle key={t.step} cx={t.at.x} cy={t.at.y} r={0.9 * u} fill="#10302f" />
              ))}
            </g>
          )}
          {token.mark && (
            <path
              d={`M${token.mark.x - 3 * u} ${token.mark.y}h${6 * u}`}
              stroke="#10302f"
              strokeWidth={0.7 * u}
              data-mark=""
            />
          )}
          {off && (
            <path
              d={`M${sx} ${sy}L${ax} ${ay}`}
              stroke="var(--lavender)"
              strokeWidth={1.1 * u}
              strokeDasharray={`0.1 ${2 * u}`}
              strokeLinecap="round"
              markerEnd={`url(#${id}a)`}
              data-leans=""
            />
          )}
          <defs>
            <marker
              id={`${id}a`}
              viewBox="0 0 10 10"
              refX="6"
              refY="5"
              markerWidth="4"
              markerHeight="4"
              orient="auto"
            >
              <path d="M0 0L10 5L0 10Z" fill="var(--lavender)" />
            </marker>
          </defs>
          <circle
            cx={token.com.x}
            cy={token.com.y}
            r={2 * u}
            fill="var(--panel)"
            stroke="#10302f"
            strokeWidth={0.6 * u}
            data-com=""
          />
          {token.measured && (
            <circle
              cx={token.real.x}
              cy={token.real.y}
              r={2 * u}
              fill="var(--tide)"
              stroke="var(--panel)"
              strokeWidth={0.5 * u}
              data-found=""
            />
          )}
          <path
            d={`M${sx - 2.6 * u} ${sy - 2.6 * u}l${5.2 * u} ${5.2 * u}m0 ${-5.2 * u}l${-5.2 * u} ${5.2 * u}`}
            stroke="#fdf8ea"
            strokeWidth={1.8 * u}
          />
          <path
            d={`M${sx - 2.6 * u} ${sy - 2.6 * u}l${5.2 * u} ${5.2 * u}m0 ${-5.2 * u}l${-5.2 * u} ${5.2 * u}`}
            stroke="#10302f"
            strokeWidth={0.9 * u}
            data-support=""
          />
        </g>
      )}
    </svg>
  );
}

function edges(p: number[]): string {
  let d = "";
  for (let i = 0; i + 3 < p.length; i += 4) d += `M${p[i]} ${p[i + 1]}L${p[i + 2]} ${p[i + 3]}`;
  return d;
}
