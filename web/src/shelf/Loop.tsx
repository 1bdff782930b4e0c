import { useState } from "react";
import type { Preview } from "../api/client";
import { useStill } from "../parts/useStill";
import { useUnits } from "../settings";
import { outcomeRange, outcomeValue } from "../units";

const [width, height, ground] = [200, 78, 68];

/** How long a loop takes on the screen, s: a hop is over too soon to be seen. */
const leastS = 1.4;

/**
 * A toy's motion before it is folded: the middle trial from the side, twice through, and
 * again when the pointer comes. It stands still for those who asked for that. A toy that
 * goes nowhere has no path; what it does stands there in words.
 */
export function Loop({ preview: p, title }: { preview: Preview; title: string }) {
  const units = useUnits();
  const still = useStill();
  const [again, setAgain] = useState(0);
  const last = p.loop.at(-1);
  const value = p.outcome && outcomeValue(p.outcome.middle, p.outcome, units);
  if (!last || p.loop.length < 2) {
    return (
      <p className="mt-2 text-sm" data-loop={p.mode}>
        Predicted: <b>{p.mode}</b>
        {p.outcome && `; ${p.outcome.label.toLowerCase()}: ${outcomeRange(p.outcome, units)}`}
      </p>
    );
  }
  const far = Math.max(...p.loop.map((m) => m.along), 0.01);
  const near = Math.min(...p.loop.map((m) => m.along), 0);
  const high = Math.max(...p.loop.map((m) => m.up), 0.01);
  const scale = Math.min((width - 24) / (far - near), (ground - 12) / high);
  const x = (m: { along: number }) => 12 + (m.along - near) * scale;
  const y = (m: { up: number }) => ground - m.up * scale;
  const path = p.loop.map((m, i) => `${i ? "L" : "M"}${x(m).toFixed(1)} ${y(m).toFixed(1)}`).join("");
  const times = p.loop.map((m) => (m.t / last.t).toFixed(4)).join(";");
  const seconds = `${Math.max(leastS, last.t).toFixed(2)}s`;
  const run = { dur: seconds, repeatCount: 2, keyTimes: times, calcMode: "linear", fill: "freeze" as const };
  return (
    <figure className="mt-2" data-loop={p.mode} onPointerEnter={() => setAgain((n) => n + 1)}>
      <svg
        key={again}
        viewBox={`0 0 ${width} ${height}`}
        className="h-20 w-full max-w-[13rem]"
        role="img"
        aria-label={`${title} from the side, predicted: ${p.mode}${value ? `, ${value}` : ""}`}
      >
        <path d={`M4 ${ground}H${width - 4}`} stroke="var(--quiet)" />
        <path d={path} fill="none" stroke="var(--lavender)" strokeWidth="1.5" strokeDasharray="2 4" />
        <g
          transform={
            still
              ? `translate(${x(last)} ${y(last)}) rotate(${-last.pitch})`
              : `translate(${x(p.loop[0] ?? last)} ${y(p.loop[0] ?? last)})`
          }
        >
          {!still && (
            <animateTransform
              attributeName="transform"
              type="translate"
              values={p.loop.map((m) => `${x(m).toFixed(1)} ${y(m).toFixed(1)}`).join(";")}
              {...run}
            />
          )}
          <path d="M9 0L-7 -4.5L-4 0L-7 4.5Z" fill="var(--ink)">
            {!still && (
              <animateTransform
                attributeName="transform"
                type="rotate"
                values={p.loop.map((m) => (-m.pitch).toFixed(1)).join(";")}
                {...run}
              />
            )}
          </path>
        </g>
      </svg>
      <figcaption className="text-sm">
        <span className="title text-lg text-lavender">{value}</span>{" "}
        <span className="text-quiet">predicted</span>
      </figcaption>
    </figure>
  );
}
