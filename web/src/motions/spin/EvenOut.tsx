import { useState } from "react";
import { Button, Caution, Field } from "../../parts/controls";
import { number } from "../../units";
import type { WheelDrawing } from "./types";

const typed = (text: string) => {
  const v = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(v) && v >= 0 && v <= 40 ? v : undefined;
};

/** Folds between the blades, as they were counted; which one to move first, and what follows. */
export function EvenOut({
  wheel,
  onMeasured,
}: {
  wheel: WheelDrawing;
  onMeasured?: ((measured: Record<string, number>) => void) | undefined;
}) {
  const standing = wheel.gaps.map((g) => number(g, 1));
  const [text, setText] = useState<string[] | null>(null);
  const [problem, setProblem] = useState("");
  const shown = text ?? standing;
  const first = wheel.moves[0];
  const take = (gaps: number[]) => {
    setText(null);
    setProblem("");
    onMeasured?.(Object.fromEntries(gaps.map((g, i) => [`gap_${i + 1}`, g])));
  };
  const takeTyped = () => {
    const bad = shown.findIndex((t) => typed(t) === undefined);
    if (bad >= 0) {
      setProblem(
        `Between blade ${bad + 1} and the next stands “${shown[bad]}”; write a number of folds from 0 to 40, such as 5 or 4.5.`,
      );
      return;
    }
    take(shown.map((t) => typed(t) ?? 0));
  };
  return (
    <section aria-label="Evening out" className="border-t border-line pt-3" data-even="">
      <h2 className="text-lg">Evening out</h2>
      <p className="text-sm text-quiet">
        Count the folds, or the strips of a ruler, between each blade and the next.
      </p>
      {onMeasured && (
        <>
          <div className="mt-2 grid grid-cols-3 gap-2 sm:grid-cols-4">
            {shown.map((t, i) => (
              <Field
                key={i}
                label={`${i + 1} to ${((i + 1) % shown.length) + 1}`}
                unit=""
                inputMode="decimal"
                value={t}
                onChange={(e) => {
                  const next = [...shown];
                  next[i] = e.target.value;
                  setText(next);
                }}
              />
            ))}
          </div>
          {problem && <Caution title="Not taken">{problem}</Caution>}
          <Button className="mt-2" onClick={takeTyped}>
            Take these counts
          </Button>
        </>
      )}
      <p className="mt-2">
        <span className="figure text-3xl">{number(wheel.spread, 2)}</span> folds of spread about a mean of{" "}
        {number(wheel.mean, 1)}. Imbalance {number(wheel.uneven_gmm, 2)} g mm.
      </p>
      {first ? (
        <>
          <p className="mt-1 text-lg font-semibold" data-move-first="">
            {first.says}
          </p>
          <p className="text-sm text-quiet">
            It leaves {number(first.spread, 2)} folds of spread, {number(first.uneven_gmm, 2)} g mm
            {wheel.moves.length > 1 &&
              `; ${wheel.moves.length} moves in all: ${wheel.moves
                .slice(1)
                .map((m) => m.says.replace(/^M/, "m").replace(/\.$/, ""))
                .join(", then ")}`}
            .
          </p>
          {onMeasured && (
            <Button className="mt-2" onClick={() => take(first.gaps)}>
              I have moved blade {first.blade}
            </Button>
          )}
        </>
      ) : (
        <p className="mt-1">No blade stands off by half a fold.</p>
      )}
    </section>
  );
}
