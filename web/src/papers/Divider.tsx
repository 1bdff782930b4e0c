import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Problem, type Division } from "../api/client";
import { plainFaces } from "../paper";
import { Caution, Choice, Field, Figure } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { inUnits, number, parseNumber, smallLength } from "../units";
import { SFold } from "./SFold";
import { SizeFields } from "./SizeFields";
import { toldIn, sizeInput, typed } from "./typedSize";

type What = "fraction" | "angle";

/** Divide an edge or an angle by a few folds, without a ruler. */
export function Divider() {
  const units = useUnits();
  const [entered, setSize] = useState(() => typed(210, 297, units));
  const size = toldIn(entered, units);
  const [what, setWhat] = useState<What>("fraction");
  const [part, setPart] = useState("1");
  const [of, setOf] = useState("3");
  const [deg, setDeg] = useState("60");
  const input = sizeInput(size);
  const value = parseNumber(what === "fraction" ? part : deg);
  const whole = what === "fraction" ? parseNumber(of) : 0;
  const found = useQuery({
    queryKey: ["divide", input, what, value, whole],
    queryFn: () =>
      input && value !== undefined && whole !== undefined
        ? api.divide(input, what, value, whole)
        : Promise.reject(new Error("no number")),
    enabled: input !== undefined && value !== undefined && whole !== undefined,
    placeholderData: (old) => old,
    retry: false,
  });
  const problem = found.error instanceof Problem ? found.error : null;
  return (
    <div className="grid gap-8 lg:grid-cols-[24rem_1fr]">
      <div className="space-y-4">
        <Choice
          label="Divide"
          value={what}
          options={[
            { value: "fraction", label: "the left edge" },
            { value: "angle", label: "the corner" },
          ]}
          onChange={setWhat}
        />
        {what === "fraction" ? (
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Part"
              value={part}
              onChange={(e) => setPart(e.target.value)}
              problem={problem?.field("part")}
            />
            <Field
              label="of"
              value={of}
              onChange={(e) => setOf(e.target.value)}
              hint="1 of 3 is a third, from below."
            />
          </div>
        ) : (
          <Field
            label="Angle"
            unit="°"
            value={deg}
            hint="From the lower edge, at the lower left corner."
            onChange={(e) => setDeg(e.target.value)}
            problem={problem?.field("part")}
          />
        )}
        <SizeFields value={size} problem={problem} onChange={setSize} />
      </div>
      <div>
        {problem && <Caution title="That cannot be divided">{inUnits(problem.message, units)}</Caution>}
        {!problem && found.data && <Answer found={found.data} what={what} />}
      </div>
    </div>
  );
}

function Answer({ found, what }: { found: Division; what: What }) {
  const units = useUnits();
  const [chosen, setChosen] = useState(-1);
  const recipe = found.recipes[chosen] ?? found.recipes[found.recipes.length - 1];
  if (!recipe) return <p className="text-lg">No short chain of folds was found.</p>;
  const off = (r: typeof recipe) =>
    r.exact
      ? "exact"
      : what === "angle"
        ? `${number(Math.abs(r.error_deg), 2)}° off`
        : `${smallLength(r.error_mm, units, 2)} off`;
  return (
    <div className="space-y-5">
      <Figure
        value={String(recipe.steps.length)}
        unit={`${recipe.steps.length === 1 ? "crease" : "creases"}, ${off(recipe)}`}
      >
        {recipe.exact
          ? "It comes out right on any sheet of these proportions; only the hand errs."
          : `On this sheet it gives ${what === "angle" ? `${number(recipe.value, 2)}°` : number(recipe.value, 4)}. Computed, with folds made exactly.`}
      </Figure>
      <div role="group" aria-label="Recipes" className="flex flex-wrap gap-2">
        {found.recipes.map((r, i) => (
          <button
            key={r.steps.length}
            type="button"
            aria-pressed={r === recipe}
            onClick={() => setChosen(i)}
            className="min-h-11 border-2 border-ink bg-panel px-3 aria-pressed:bg-ink aria-pressed:text-panel"
          >
            {r.steps.length} {r.steps.length === 1 ? "crease" : "creases"}: {off(r)}
          </button>
        ))}
      </div>
      <ol className="grid gap-4 sm:grid-cols-2 xl:grid-cols-4">
        {recipe.steps.map((s, i) => (
          <li key={i} className="border border-line bg-panel p-3">
            <PaperPicture
              picture={found.sheet}
              next={s.over}
              colours={plainFaces}
              label={s.words}
              className="h-52 w-full"
            />
            <p className="mt-2">
              <b>{i + 1}</b> {s.words}
            </p>
          </li>
        ))}
      </ol>
      {what === "fraction" && (
        <p className="text-sm text-quiet">
          The sign shows where the last crease meets the left edge: that is the mark.
        </p>
      )}
      {found.correcting && <Correcting c={found.correcting} />}
      {found.correcting?.folds === "01" && <SFold />}
    </div>
  );
}

function Correcting({ c }: { c: NonNullable<Division["correcting"]> }) {
  const units = useUnits();
  const folds = c.folds.split("").map((d) => (d === "0" ? "the lower end" : "the upper end"));
  return (
    <section className="border-l-4 border-line pl-4" aria-labelledby="correcting">
      <h2 id="correcting" className="text-xl">
        Or guess, and let the folds correct it
      </h2>
      <p className="mt-1">
        Mark the part by eye. Then bring {folds.join(", then ")} to the newest mark, pinch, open; and again
        from the start. Each fold halves the error.
      </p>
      <p className="mt-1 text-sm text-quiet">
        A guess {smallLength(c.first_error_mm, units)} off is{" "}
        {c.after_mm.map((v) => smallLength(v, units, 2)).join(", then ")} off after each round. A hand that is{" "}
        {smallLength(c.hand_mm, units)} out ends {smallLength(c.drift_mm, units, 2)} out.
      </p>
    </section>
  );
}
