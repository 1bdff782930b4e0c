import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem, type Division } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { Caution, Choice, Field, Figure } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { number, parse, parseLength, parseNumber, smallLength } from "../units";
import { SFold } from "./SFold";
import { SizeFields } from "./SizeFields";
import { toldIn, sizeInput, typed, typedLength } from "./typedSize";

type What = "fraction" | "parts" | "length" | "angle";

/** Divide an edge or an angle by a few folds, without a ruler. */
export function Divider() {
  const units = useUnits();
  const [entered, setSize] = useState(() => typed(210, 297, units));
  const size = toldIn(entered, units);
  const [what, setWhat] = useState<What>("fraction");
  const [part, setPart] = useState("1");
  const [of, setOf] = useState("3");
  const [parts, setParts] = useState("5");
  const [long, setLong] = useState(() => typedLength(100, units));
  const [longUnits, setLongUnits] = useState(units);
  if (longUnits !== units) {
    // What was typed keeps its meaning when the units are switched.
    const mm = parseLength(long, longUnits);
    setLongUnits(units);
    if (mm !== undefined) setLong(typedLength(mm, units));
  }
  const [deg, setDeg] = useState("60");
  const input = sizeInput(size);
  const value =
    what === "length"
      ? parseLength(long, units)
      : parse({ fraction: part, parts, angle: deg }[what], what === "angle" ? "°" : "");
  const whole = what === "fraction" ? parseNumber(of) : 0;
  const found = useQuery(question.divide(input, what, value, whole));
  const problem = found.error instanceof Problem ? found.error : null;
  return (
    <div className="grid gap-8 lg:grid-cols-[24rem_1fr]">
      <div className="space-y-4">
        <Choice
          label="Divide"
          value={what}
          options={[
            { value: "fraction", label: "at a fraction" },
            { value: "parts", label: "equal parts" },
            { value: "length", label: "at a length" },
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
        ) : what === "parts" ? (
          <Field
            label="Equal parts of the left edge"
            value={parts}
            hint="2 to 33"
            onChange={(e) => setParts(e.target.value)}
            problem={problem?.field("part")}
          />
        ) : what === "length" ? (
          <Field
            label="Length on the left edge"
            unit={units}
            value={long}
            hint="From the lower left corner."
            onChange={(e) => setLong(e.target.value)}
            problem={(problem?.field("part") ?? "") || undefined}
          />
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
        {problem && <Caution title="That cannot be divided">{problem.message}</Caution>}
        {!problem && found.data && <Answer found={found.data} what={what} />}
      </div>
    </div>
  );
}

function Answer({ found, what }: { found: Division; what: What }) {
  const plain = usePlainPaper();
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
  // The same error the other way: an angle in length, a length as an angle.
  const also = (r: typeof recipe) =>
    r.exact
      ? ""
      : what === "angle"
        ? ` That is ${smallLength(r.error_mm, units, 2)} at the far end.`
        : ` That is ${number(Math.abs(r.error_deg), 3)}° seen from the lower right corner.`;
  return (
    <div className="space-y-5">
      <Figure
        value={String(recipe.steps.length)}
        unit={`${recipe.steps.length === 1 ? "crease" : "creases"}, ${off(recipe)}`}
      >
        {recipe.exact
          ? "It comes out right on any sheet of these proportions; only the hand errs."
          : `On this sheet it gives ${what === "angle" ? `${number(recipe.value, 2)}°` : number(recipe.value, 4)}.${also(recipe)} Computed, with folds made exactly.`}
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
              colours={plain}
              label={s.words}
              className="h-52 w-full"
            />
            <p className="mt-2">
              <b>{i + 1}</b> {s.words}
            </p>
          </li>
        ))}
      </ol>
      {what !== "angle" && (
        <p className="text-sm text-quiet">
          The sign shows where the last crease meets the left edge: that is the mark.
        </p>
      )}
      {found.tree.length > 1 && <Tree found={found} />}
      {found.correcting && <Correcting c={found.correcting} />}
      {found.correcting?.folds === "01" && <SFold />}
    </div>
  );
}

/** All marks of equal parts, in the order in which they are made. */
function Tree({ found }: { found: Division }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const n = found.tree.length + 1;
  return (
    <section aria-labelledby="tree">
      <h2 id="tree" className="text-xl">
        {found.tree[0]?.words === "" ? "Then the other marks" : "The marks, by halving"}
      </h2>
      <div className="mt-2 grid gap-4 sm:grid-cols-[12rem_1fr]">
        {found.parts && (
          <PaperPicture
            picture={found.sheet}
            next={found.parts}
            colours={plain}
            label={`The sheet in ${n} equal parts`}
            className="h-60 w-full"
          />
        )}
        <div className="max-h-96 overflow-auto">
          <table className="w-full text-left">
            <thead className="text-sm text-quiet">
              <tr>
                <th scope="col">Mark</th>
                <th scope="col">How</th>
                <th scope="col" className="text-right">
                  give or take
                </th>
              </tr>
            </thead>
            <tbody>
              {found.tree.map((m) => (
                <tr key={m.k} className="border-t border-line">
                  <th scope="row" className="pr-3 whitespace-nowrap">
                    {m.k} of {n}
                  </th>
                  <td className="py-1">{m.words || "by the recipe above"}</td>
                  <td className="pl-3 text-right whitespace-nowrap">{smallLength(m.error_mm, units, 2)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
      <p className="mt-1 text-sm text-quiet">
        The beginning is the lower end. Give or take: one standard deviation of a careful hand, an estimate.
      </p>
    </section>
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
