import { useQuery } from "@tanstack/react-query";
import { Problem } from "../api/client";
import { question } from "../api/queries";
import { Field } from "../parts/controls";
import { useUnits } from "../settings";
import { parseLength, smallLength } from "../units";
import { useTypedLengths } from "./typedSize";

/** An S-fold put right: three widths as seen, and which fold moves how far. */
export function SFold() {
  const units = useUnits();
  const [widths, setWidth] = useTypedLengths(3);
  const seen = widths.map((w) => parseLength(w, units));
  const [a, b, c] = seen;
  const nudge = useQuery(question.sFold(a, b, c));
  const way = (mm: number) =>
    Math.abs(mm) < 0.05
      ? "leave it where it is"
      : `${smallLength(Math.abs(mm), units)} towards the ${mm > 0 ? "last" : "first"} end`;
  const n = nudge.data;
  return (
    <section className="border-l-4 border-line pl-4" aria-labelledby="s-fold">
      <h2 id="s-fold" className="text-xl">
        Or fold an S, and nudge it
      </h2>
      <p className="mt-1">Curl the edge into an S of three without pressing, and measure the three widths.</p>
      <div className="mt-2 grid max-w-xl grid-cols-3 gap-3">
        {["First", "Middle", "Last"].map((name, i) => (
          <Field
            key={name}
            label={`${name}, ${units}`}
            value={widths[i]}
            problem={widths[i] && seen[i] === undefined ? `“${widths[i]}” is no length` : undefined}
            onChange={(e) => setWidth(i, e.target.value)}
          />
        ))}
      </div>
      <div aria-live="polite" className="mt-2 space-y-1">
        {nudge.error instanceof Problem && (
          <p className="bg-caution px-2 py-1 text-on-mark">{nudge.error.message}</p>
        )}
        {n?.done && (
          <p className="title text-xl">Press it: the folds are as near as a careful hand can make them.</p>
        )}
        {n && !n.done && (
          <>
            <p className="title text-xl">First fold: {way(n.first_mm)}</p>
            <p className="title text-xl">Second fold: {way(n.second_mm)}</p>
          </>
        )}
        {n && (
          <p className="text-sm text-quiet">
            Each third is {smallLength(n.third_mm, units)} of what you measured.
          </p>
        )}
      </div>
    </section>
  );
}
