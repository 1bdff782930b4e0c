import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem, type EffectOnToy as Toy, type SizeInput } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { PaperPicture } from "../parts/PaperPicture";
import { Field, Select } from "../parts/controls";
import { useUnits } from "../settings";
import { number, parseLength, sheetSize, smallLength } from "../units";
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
  const [pattern, setPattern] = useState("");
  const patterns = useQuery(question.patterns());
  const judged = useQuery(question.measured(size, rising, falling, pattern));
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
      <Select
        className="mt-3"
        label="What will it do to the toy?"
        value={pattern}
        options={[
          { value: "", label: "no toy chosen" },
          ...(patterns.data ?? []).map((p) => ({ value: p.id, label: p.title })),
        ]}
        onChange={setPattern}
      />
      <div aria-live="polite" className="mt-2 space-y-1">
        {judged.error instanceof Problem && (
          <p className="bg-caution px-2 py-1 text-on-mark">{judged.error.message}</p>
        )}
        {q?.misread && (
          <p className="bg-caution px-2 py-1 text-on-mark">
            Sides and diagonals do not belong to one sheet with parallel edges; measure again.
          </p>
        )}
        {q?.toy && <Effect toy={q.toy} title={patterns.data?.find((p) => p.id === pattern)?.title ?? ""} />}
        {q && !q.misread && rising !== undefined && falling !== undefined && rising + falling > 0 && (
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

/** What a sheet that is a little off does at the end, and how much to trim. */
function Effect({ toy, title }: { toy: Toy; title: string }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const worst = Math.max(0, ...toy.misfits.map((m) => m.mm));
  return (
    <div className="border-2 border-ink bg-panel p-3">
      <p className="title text-xl">
        {toy.why
          ? `${title} cannot be folded from it`
          : worst === 0
            ? `${title} closes as it should`
            : `${title}: ${toy.estimated ? "about" : "up to"} ${smallLength(worst, units)} out at the end`}
      </p>
      {toy.per_mm > 0 && (
        <p>
          Each {units === "mm" ? "mm" : "1/16 in"} that the sheet is off moves edges that should meet by{" "}
          {smallLength(toy.per_mm * (units === "mm" ? 1 : 25.4 / 16), units)}.
        </p>
      )}
      {toy.why && <p>{toy.why}</p>}
      <ul className="list-inside list-disc">
        {toy.misfits.map((m) => (
          <li key={m.edges}>
            {m.edges}: {m.kind === "beside" ? "lie " : m.kind === "gap" ? "leave a gap of " : "overlap by "}
            {smallLength(m.mm, units)}
            {m.kind === "beside" && " beside each other"}
          </li>
        ))}
      </ul>
      {toy.picture && (
        <PaperPicture
          picture={toy.picture}
          colours={plain}
          label={`${title} from this sheet, folded flat`}
          className="mt-2 h-32 w-full"
        />
      )}
      {toy.trim ? (
        <p>
          <b>Trim it to {sheetSize(toy.trim_w_mm, toy.trim_h_mm, units)}</b>:{" "}
          {smallLength(Math.max(0, toy.off_w_mm), units)} off the width,{" "}
          {smallLength(Math.max(0, toy.off_h_mm), units)} off the height.
        </p>
      ) : (
        <p>No trim makes it better.</p>
      )}
      <p className="text-sm text-quiet">
        {toy.estimated
          ? "Estimated: with every fold where it lies on a sheet of the right shape."
          : "Computed for folds made exactly, against a sheet of the right shape."}
      </p>
    </div>
  );
}
