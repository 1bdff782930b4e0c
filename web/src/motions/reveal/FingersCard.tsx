import { useUnits } from "../../settings";
import { length, smallLength } from "../../units";
import type { TellerDrawing } from "./types";

/** How fingers go in: four pockets from below, a thumb and a forefinger of each hand. */
export function FingersCard({ teller }: { teller: TellerDrawing }) {
  const units = useUnits();
  const mm = (v: number) => smallLength(v, units);
  const finger = (x: number, y: number, turn: number) => (
    <g key={`${x} ${y}`} transform={`translate(${x} ${y}) rotate(${turn})`}>
      <path
        d="M-4 26V4a4 4 0 0 1 8 0v22"
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth="1.1"
        strokeLinejoin="round"
      />
      <path d="M-2 3a2.2 2.2 0 0 1 4 0" fill="none" stroke="var(--ink)" strokeWidth="0.7" />
    </g>
  );
  return (
    <section aria-label="Fingers" className="min-w-0">
      <h2 className="text-xl">Fingers</h2>
      <figure>
        <svg
          viewBox="-60 -48 120 100"
          role="img"
          aria-label="From below: thumbs go into the two lower pockets, forefingers into the two upper ones, a hand on each side"
          className="h-44 w-full"
        >
          {[
            [-1, -1],
            [1, -1],
            [-1, 1],
            [1, 1],
          ].map(([sx = 0, sy = 0], i) => (
            <path
              key={i}
              d={`M0 0L${sx * 26} 0L${sx * 26} ${sy * 26}L0 ${sy * 26}Z`}
              fill="#fdf8ea"
              stroke="#10302f"
              strokeWidth="1"
            />
          ))}
          {finger(-16, -16, 62)}
          {finger(-16, 16, 118)}
          {finger(16, -16, -62)}
          {finger(16, 16, -118)}
          <text x="-42" y="-34" fontSize="6.5" textAnchor="middle" fill="var(--ink)">
            forefinger
          </text>
          <text x="-42" y="47" fontSize="6.5" textAnchor="middle" fill="var(--ink)">
            thumb
          </text>
          <text x="42" y="-34" fontSize="6.5" textAnchor="middle" fill="var(--ink)">
            forefinger
          </text>
          <text x="42" y="47" fontSize="6.5" textAnchor="middle" fill="var(--ink)">
            thumb
          </text>
        </svg>
        <figcaption className="text-sm text-quiet">
          From below, a hand on each side. Pull the hands apart: it opens left and right. Pull forefingers
          from thumbs: it opens up and down.
        </figcaption>
      </figure>
      <p className="mt-1">
        A finger {mm(teller.finger_mm)} across goes in by <b>{mm(Math.max(0, teller.inside_mm))}</b> of{" "}
        {mm(teller.depth_mm)}; {mm(10)} hold well.
      </p>
      <p>
        Sheet for that finger: <b>{length(teller.proposed_mm, units)}</b> square.
      </p>
      {teller.trim_mm > 0.3 && <p>Trim {mm(teller.trim_mm)} off the longer side: then it is square.</p>}
    </section>
  );
}
