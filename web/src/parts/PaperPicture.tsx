import { memo, useId } from "react";
import type { Arrow, Overlay, Picture, Region } from "../api/client";

export interface FaceColours {
  front: string;
  back: string;
}

/** Paper keeps its colours in both themes, so what is drawn on it stays dark. */
const onPaper = "#10302f";

const points = (p: number[]) => p.join(",");

function lines(p: number[]): string {
  let d = "";
  for (let i = 0; i + 3 < p.length; i += 4) d += `M${p[i]} ${p[i + 1]}L${p[i + 2]} ${p[i + 3]}`;
  return d;
}

const dashes: Record<string, string | undefined> = {
  valley: "9 6",
  mountain: "14 5 2.5 5",
  axis: "2 6",
  cut: "4 4",
  hidden: "3 5",
};

/**
 * Folded paper as the engine drew it: pieces in paint order, two faces, opened
 * creases thin. Over it, when given, the next step or the layer map. An empty
 * label is for pictures whose words stand beside them.
 */
function Drawn({
  picture,
  colours,
  label,
  next,
  view,
  layers,
  showCentre = false,
  thin = false,
  parts = false,
  hold,
  transform,
  onPoint,
  chosen = "",
  onZone,
  className = "",
}: {
  picture: Picture;
  colours: FaceColours;
  label: string;
  next?: Overlay;
  view?: number[];
  layers?: Region[];
  showCentre?: boolean;
  thin?: boolean;
  /** Lengths are told as parts of the sheet, where they are simple ones. */
  parts?: boolean;
  /** Where a hand holds the paper. */
  hold?: readonly number[];
  /** How the picture is turned or mirrored. */
  transform?: string;
  /** Called with the place in mm that is pressed. */
  onPoint?: (x: number, y: number) => void;
  /** The place that is written in: its name. */
  chosen?: string;
  /** Called with the place that is pressed. */
  onZone?: (zone: string) => void;
  className?: string;
}) {
  const id = useId();
  const [x = 0, y = 0, w = 1, h = 1] = view ?? next?.view ?? picture.view;
  const size = Math.max(w, h);
  const pad = size * (thin ? 0.03 : 0.07);
  // A turned picture needs room for its corners.
  const [cx, cy, r] = [x + w / 2, y + h / 2, Math.hypot(w, h) / 2];
  const box = transform?.includes("rotate(")
    ? [cx - r, cy - r, 2 * r, 2 * r]
    : [x - pad, y - pad, w + 2 * pad, h + 2 * pad];
  const edge = thin ? 0.75 : 1.25;
  const deepest = layers ? Math.max(...layers.map((r) => r.layers)) : 1;
  return (
    <svg
      {...(label ? { role: "img", "aria-label": label } : { "aria-hidden": true })}
      viewBox={box.join(" ")}
      className={className}
      onClick={
        onPoint &&
        ((e) => {
          const m = e.currentTarget.getScreenCTM();
          if (!m) return;
          const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
          onPoint(p.x, p.y);
        })
      }
      preserveAspectRatio="xMidYMid meet"
    >
      {!thin && (
        <defs>
          <filter id={`${id}s`} x="-10%" y="-10%" width="125%" height="125%">
            <feDropShadow
              dx={size * 0.006}
              dy={size * 0.008}
              stdDeviation={size * 0.008}
              floodColor="#10302f"
              floodOpacity="0.28"
            />
          </filter>
        </defs>
      )}
      <g style={transform ? { transform, transformOrigin: `${cx}px ${cy}px` } : undefined}>
        {/* By night paper is seen by its rim: edge-on it has no face to be seen by. */}
        <path
          d={picture.faces.map((f) => `M${points(f.points)}Z`).join("")}
          fill="none"
          stroke="var(--paper-rim)"
          strokeWidth={thin ? 2.25 : 3.5}
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
          data-rim=""
        />
        <g
          filter={thin ? undefined : `url(#${id}s)`}
          stroke={onPaper}
          strokeLinejoin="round"
          strokeWidth={edge}
        >
          {picture.faces.map((f, i) => (
            <g key={i}>
              <polygon
                points={points(f.points)}
                fill={f.front ? colours.front : colours.back}
                stroke={f.plain ? (f.front ? colours.front : colours.back) : undefined}
                strokeWidth={f.plain ? 0.6 : undefined}
                vectorEffect="non-scaling-stroke"
              />
              {f.moves && (
                <polygon points={points(f.points)} fill="#ff6b2c" fillOpacity="0.3" stroke="none" />
              )}
              {f.edges && <path d={lines(f.edges)} fill="none" vectorEffect="non-scaling-stroke" />}
              {f.creases && (
                <path
                  d={lines(f.creases)}
                  strokeWidth={thin ? 0.5 : 0.9}
                  strokeOpacity="0.65"
                  fill="none"
                  vectorEffect="non-scaling-stroke"
                />
              )}
            </g>
          ))}
        </g>
        {picture.written && (
          <Writing
            written={thin ? picture.written.filter((n) => n.line ?? (n.area && !n.zone)) : picture.written}
            size={size}
            chosen={chosen}
            onZone={onZone}
          />
        )}
        {layers && <LayerMap regions={layers} deepest={deepest} size={size} />}
        {next && (
          <NextStep
            next={next}
            size={size}
            id={id}
            parts={parts}
            mirrored={!!transform?.includes("scaleX(-1)")}
          />
        )}
        {showCentre && picture.com && <Centre at={picture.com} r={size * 0.022} />}
        {hold && <Hold at={hold} r={size * 0.03} />}
      </g>
    </svg>
  );
}

/**
 * What is written or drawn on the paper; faint where it is seen through it. Words are left
 * out of thin pictures, which are too small for them.
 */
function Writing({
  written,
  size,
  chosen,
  onZone,
}: {
  written: NonNullable<Picture["written"]>;
  size: number;
  chosen: string;
  onZone?: ((zone: string) => void) | undefined;
}) {
  const id = useId();
  return (
    <g fill={onPaper} stroke="none">
      {written.map((w, i) => {
        if (w.zone) {
          const zone = w.zone;
          const on = zone === chosen;
          return on || onZone ? (
            <polygon
              key={i}
              points={points(w.area ?? [])}
              fill="#ff6b2c"
              fillOpacity={on ? 0.22 : 0}
              stroke={on ? onPaper : "none"}
              strokeWidth="2.5"
              vectorEffect="non-scaling-stroke"
              data-zone={zone}
              {...(onZone ? { onClick: () => onZone(zone), style: { cursor: "pointer" } } : {})}
            />
          ) : null;
        }
        if (w.image)
          return (
            <g key={i}>
              <clipPath id={`${id}c${i}`}>
                <polygon points={points(w.area ?? [])} />
              </clipPath>
              <g clipPath={`url(#${id}c${i})`}>
                <image
                  href={`/api/v1/images/${w.image.replace("own:", "")}`}
                  width="1"
                  height="1"
                  preserveAspectRatio="none"
                  transform={`matrix(${(w.place ?? []).join(" ")})`}
                />
              </g>
            </g>
          );
        if (w.area) return <polygon key={i} points={points(w.area)} fill={w.colour} />;
        if (w.line)
          return (
            <polyline
              key={i}
              points={points(w.line)}
              fill="none"
              stroke={onPaper}
              strokeWidth={size * 0.004}
              opacity={w.behind ? 0.4 : undefined}
            />
          );
        return (
          <text
            key={i}
            transform={`matrix(${(w.place ?? []).join(" ")})`}
            fontSize={w.size_mm}
            fontWeight={w.wide_mm ? "500" : "700"}
            textAnchor="middle"
            dominantBaseline="central"
            opacity={w.behind ? 0.4 : undefined}
            fill={w.colour ?? onPaper}
            {...(w.wide_mm ? { textLength: w.wide_mm, lengthAdjust: "spacingAndGlyphs" } : {})}
          >
            {w.text}
          </text>
        );
      })}
    </g>
  );
}

function LayerMap({ regions, deepest, size }: { regions: Region[]; deepest: number; size: number }) {
  return (
    <g>
      {regions.map((r, i) => {
        const dark = r.layers / deepest;
        return (
          <polygon
            key={i}
            points={points(r.points)}
            fill={onPaper}
            fillOpacity={0.08 + 0.77 * dark}
            stroke="#fdf8ea"
            strokeWidth="0.6"
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
      {regions.map(
        (r, i) =>
          r.label && (
            <text
              key={i}
              x={r.label[0]}
              y={r.label[1]}
              fontSize={size * 0.032}
              fontWeight="800"
              textAnchor="middle"
              dominantBaseline="central"
              fill="#10302f"
              stroke="#fdf8ea"
              strokeWidth={size * 0.009}
              paintOrder="stroke"
            >
              {r.layers}
            </text>
          ),
      )}
    </g>
  );
}

/** What parts of signs are painted with. */
const fills: Record<string, string> = { mark: "#ff6b2c", paper: "#fdf8ea", ink: onPaper };

function NextStep({
  next,
  size,
  id,
  parts,
  mirrored,
}: {
  next: Overlay;
  size: number;
  id: string;
  parts: boolean;
  mirrored: boolean;
}) {
  return (
    <g>
      <defs>
        <pattern
          id={`${id}h`}
          width={size * 0.02}
          height={size * 0.02}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={size * 0.007} height={size * 0.02} fill="#ff6b2c" fillOpacity="0.5" />
        </pattern>
      </defs>
      {next.moving.map((m, i) => (
        <polygon key={i} points={points(m.points)} fill={`url(#${id}h)`} />
      ))}
      {next.strokes.map((s, i) =>
        s.kind === "meet" ? (
          <g key={i}>
            <polyline
              points={points(s.points)}
              fill="none"
              stroke="#fdf8ea"
              data-halo=""
              strokeWidth="7"
              strokeOpacity="0.9"
              vectorEffect="non-scaling-stroke"
            />
            <polyline
              points={points(s.points)}
              fill="none"
              stroke={onPaper}
              strokeWidth="3.5"
              vectorEffect="non-scaling-stroke"
            />
          </g>
        ) : (
          <g key={i}>
            <polyline
              points={points(s.points)}
              fill="none"
              stroke="#fdf8ea"
              data-halo=""
              strokeWidth="4.5"
              strokeOpacity="0.85"
              vectorEffect="non-scaling-stroke"
            />
            <polyline
              points={points(s.points)}
              fill="none"
              stroke={onPaper}
              strokeWidth="2"
              strokeDasharray={dashes[s.kind]}
              vectorEffect="non-scaling-stroke"
            />
          </g>
        ),
      )}
      {next.arrows.map((a, i) => (
        <NextArrow key={i} arrow={a} />
      ))}
      {next.signs.map((s, i) => (
        <g key={i} data-sign={s.kind}>
          {s.shapes.map((q, k) => (
            <polygon
              key={k}
              points={points(q.points)}
              fill={fills[q.fill]}
              stroke={onPaper}
              strokeWidth="1.2"
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </g>
      ))}
      {next.sizes?.map((s, i) => (
        <g key={i} data-size="">
          <path
            d={lines(s.lines)}
            fill="none"
            stroke="#fdf8ea"
            data-halo=""
            strokeWidth="4"
            strokeOpacity="0.9"
            vectorEffect="non-scaling-stroke"
          />
          <path
            d={lines(s.lines)}
            fill="none"
            stroke={onPaper}
            strokeWidth="1.2"
            vectorEffect="non-scaling-stroke"
          />
          <text
            transform={`translate(${s.at[0]} ${s.at[1]}) rotate(${s.turn_deg})${mirrored ? " scale(-1 1)" : ""}`}
            fontSize={s.tall_mm}
            fontWeight="800"
            textAnchor="middle"
            dominantBaseline="central"
            fill={onPaper}
            stroke="#fdf8ea"
            strokeWidth={s.tall_mm * 0.25}
            paintOrder="stroke"
          >
            {(parts && s.part) || s.text}
          </text>
        </g>
      ))}
    </g>
  );
}

/** An arrow as the engine shaped it. */
function NextArrow({ arrow: { shaft, heads, broken } }: { arrow: Arrow }) {
  const [x = 0, y = 0, ...rest] = shaft;
  const d = `M${x} ${y}C${rest.join(" ")}`;
  return (
    <g data-arrow="">
      <path
        d={d}
        fill="none"
        stroke="#fdf8ea"
        data-halo=""
        strokeWidth="6"
        strokeOpacity="0.8"
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={d}
        fill="none"
        stroke={onPaper}
        strokeWidth="2.5"
        strokeDasharray={broken ? "7 5" : undefined}
        vectorEffect="non-scaling-stroke"
      />
      {heads.map((h, i) => (
        <polygon
          key={i}
          points={points(h.points)}
          fill={h.hollow ? "#fdf8ea" : onPaper}
          stroke={onPaper}
          strokeWidth="1.4"
          strokeLinejoin="round"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </g>
  );
}

/** Where to hold the paper down. */
function Hold({ at: [x = 0, y = 0], r }: { at: readonly number[]; r: number }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${r})`} data-hold="">
      <circle r="1" fill="#fdf8ea" fillOpacity=".8" stroke={onPaper} strokeWidth=".14" />
      <path d="M-.6 0H.6M0-.6V.6" stroke={onPaper} strokeWidth=".2" />
    </g>
  );
}

/** The customary sign of a centre of mass. */
function Centre({ at: [x = 0, y = 0], r }: { at: number[]; r: number }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${r})`} data-centre="">
      <circle r="1" fill="#fdf8ea" stroke={onPaper} strokeWidth=".16" />
      <path d="M0 0V-1A1 1 0 0 1 1 0zM0 0V1A1 1 0 0 1-1 0z" fill={onPaper} />
    </g>
  );
}

/** As many pictures are on a page as steps: one is drawn anew only when it changes. */
export const PaperPicture = memo(Drawn, (a, b) => {
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]) as Set<keyof typeof a>;
  for (const k of keys) {
    if (
      k === "colours"
        ? a.colours.front !== b.colours.front || a.colours.back !== b.colours.back
        : a[k] !== b[k]
    ) {
      return false;
    }
  }
  return true;
});
