import { useState } from "react";
import { Button, Select } from "../../parts/controls";
import type { RingDrawing } from "./types";

/** Where one is among all that the ring can show; the way to a face; lost and found. */
export function StateGraph({
  ring,
  at,
  onState,
}: {
  ring: RingDrawing;
  at: number;
  onState: (s: number) => void;
}) {
  const faces = Array.from({ length: ring.faces }, (_, i) => String(i + 1));
  const [face, setFace] = useState("1");
  const [front, setFront] = useState("1");
  const [behind, setBehind] = useState("2");
  const now = ring.states[at];
  // A state and the same turned over are one spot.
  const spots = ring.states.map((s, i) => ({ s, i })).filter(({ s, i }) => i <= s.over);
  const spotOf = (i: number) => Math.min(i, ring.states[i]?.over ?? i);
  const place = new Map(
    spots.map(({ s, i }) => [i, { x: 100 * (s.spot[0] ?? 0), y: 100 * (s.spot[1] ?? 0) }] as const),
  );
  const links = new Set(
    ring.flexes.map((f) => [spotOf(f.from), spotOf(f.to)].sort((a, b) => a - b).join(" ")),
  );
  const way = now?.ways[Number(face) - 1] ?? [];
  const lost = ring.states.findIndex((s) => s.front === Number(front) && s.behind === Number(behind));
  return (
    <section aria-label="Where you are" className="flex min-w-0 flex-col gap-3" data-graph="">
      <svg
        viewBox="0 0 100 100"
        role="img"
        aria-label={`${spots.length} states; you are where ${now?.front} is in front and ${now?.behind} behind`}
        className="h-60 w-full"
      >
        {[...links].map((l) => {
          const [a = 0, b = 0] = l.split(" ").map(Number);
          const [p, q] = [place.get(a), place.get(b)];
          return (
            p &&
            q && <line key={l} x1={p.x} y1={p.y} x2={q.x} y2={q.y} stroke="var(--quiet)" strokeWidth="0.7" />
          );
        })}
        {spots.map(({ s, i }) => {
          const p = place.get(i);
          const here = spotOf(at) === i;
          return (
            p && (
              <g key={i} transform={`translate(${p.x} ${p.y})`}>
                <circle
                  r={here ? 7.4 : 6}
                  fill={here ? "#ff6b2c" : "var(--panel)"}
                  stroke={here ? "#10302f" : "var(--ink)"}
                  strokeWidth={here ? 1.2 : 0.7}
                />
                <text
                  fontSize="5.2"
                  textAnchor="middle"
                  dominantBaseline="central"
                  fill={here ? "#10302f" : "var(--ink)"}
                  fontWeight="700"
                >
                  {s.front}·{s.behind}
                </text>
              </g>
            )
          );
        })}
      </svg>
      <p className="text-sm text-quiet">
        Each spot is a way to lie: faces on its two sides. Lines are flexes. The large one is where you are.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <Select
          label="Shortest way to face"
          value={face}
          options={faces.map((f) => ({ value: f, label: f }))}
          onChange={setFace}
        />
        <p className="grow" data-way="">
          {way.length === 0
            ? "It is in front already."
            : way
                .map((m) =>
                  m.over
                    ? "turn it over"
                    : `flex at joint ${m.joint + 1}, ${m.joint + 3} and ${m.joint + 5}: ${m.front}`,
                )
                .join("; then ")}
        </p>
        {way[0] && <Button onClick={() => onState(way[0]?.to ?? at)}>Do the first of it</Button>}
      </div>
      <details>
        <summary className="min-h-9 font-semibold">A walk that shows all: {ring.tour.length} flexes</summary>
        <ol className="list-decimal pl-6" data-tour="">
          {ring.tour.map((t, i) => (
            <li key={i}>
              Face {t.front} in front. Flex at {t.same ? "the same corner" : "the next corner"}: face{" "}
              {ring.states[t.to]?.front}.
            </li>
          ))}
        </ol>
      </details>
      <details>
        <summary className="min-h-9 font-semibold">I am lost</summary>
        <div className="flex flex-wrap items-end gap-2">
          <Select
            label="I see in front"
            value={front}
            options={faces.map((f) => ({ value: f, label: f }))}
            onChange={setFront}
          />
          <Select
            label="and behind"
            value={behind}
            options={faces.map((f) => ({ value: f, label: f }))}
            onChange={setBehind}
          />
          {lost >= 0 ? (
            <Button onClick={() => onState(lost)}>I am there</Button>
          ) : (
            <p role="status">
              No state has {front} in front and {behind} behind. Look again: if a side mixes numbers, a fold
              is off by one triangle.
            </p>
          )}
        </div>
      </details>
    </section>
  );
}
