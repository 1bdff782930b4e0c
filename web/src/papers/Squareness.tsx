import { useQuery } from "@tanstack/react-query";
import { api, Problem, type SizeInput } from "../api/client";
import { Field } from "../parts/controls";
import { useUnits } from "../settings";
import { inUnits, number, parseLength, sheetSize, smallLength } from "../units";
import { useTypedLengths } from "./typedSize";

const diagonals = [
  { name: "Rising", hint: "Lower left to upper right." },
  { name: "Falling", hint: "Upper left to lower right." },
];

/** Is the sheet square? By its sides and one or both diagonals. */
export function Squareness({ size }: { size: SizeInput | undefined }) {
  const units = useUnits();
  const [typed, setTyped] = useTypedLengths(2);
  const read = typed.map((t) => (t.trim() === "" ? 0 : parseLength(t, units)));
  const [rising, falling] = read;
  const judged = useQuery({
    queryKey: ["measured", size, rising, falling],
    queryFn: () =>
      size && rising !== undefined && falling !== undefined
        ? api.measuredSheet(size.width, size.height, rising, falling)
        : Promise.reject(new Error("no lengths")),
    enabled: size !== undefined && rising !== undefined && falling !== undefined && rising + falling > 0,
    retry: false,
  });
  const q = judged.data;
  return (
    <section aria-labelledby="square">
      <h2 id="square" className="text-xl">
        Is it square?
      </h2>
      <p className="mt-1">Measure one diagonal, better both.</p>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {diagonals.map((d, i) => (
          <Field
            key={d.name}
            label={`${d.name}, ${units}`}
            hint={d.hint}
            value={typed[i]}
            problem={read[i] === undefined ? `“${typed[i]}” is no length` : undefined}
            onChange={(e) => setTyped(i, e.target.value)}
          />
        ))}
      </div>
      <div aria-live="polite" className="mt-2 space-y-1">
        {judged.error instanceof Problem && (
          <p className="bg-caution px-2 py-1 text-on-mark">{inUnits(judged.error.message, units)}</p>
        )}
        {q?.misread && (
          <p className="bg-caution px-2 py-1 text-on-mark">
            Sides and diagonals do not belong to one sheet with parallel edges; measure again.
          </p>
        )}
        {q && !q.misread && (
          <>
            <p className="title text-xl">
              {q.square
                ? "Square enough to fold"
                : `Corners miss by ${smallLength(Math.max(q.miss_wide_mm, q.miss_high_mm), units)}`}
            </p>
            {!q.square && (
              <p>
                Folded left edge to right, the corners miss each other by {smallLength(q.miss_wide_mm, units)}
                ; lower edge to upper, by {smallLength(q.miss_high_mm, units)}. Trim it to{" "}
                {sheetSize(q.trim_wide_mm, q.trim_high_mm, units)}.
              </p>
            )}
            <p className="text-sm text-quiet">
              The lower left corner has {number(90 - q.off_deg, 2)}°, give or take {number(q.off_by_deg, 2)}°
              for a ruler read to {smallLength(q.ruler_mm, units)}.
            </p>
          </>
        )}
      </div>
    </section>
  );
}
