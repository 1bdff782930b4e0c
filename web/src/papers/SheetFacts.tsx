import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem } from "../api/client";
import { question } from "../api/queries";
import { Caution, Figure } from "../parts/controls";
import { useUnits } from "../settings";
import { length, lengthValue } from "../units";
import { SizeFields } from "./SizeFields";
import { Squareness } from "./Squareness";
import { sameProportions } from "./sheets";
import { toldIn, sizeInput, typed } from "./typedSize";

/** What is in a sheet: squares, equal squares, and the other office standard. */
export function SheetFacts() {
  const units = useUnits();
  const [entered, setSize] = useState(() => typed(210, 297, units));
  const size = toldIn(entered, units);
  const input = sizeInput(size);
  const facts = useQuery(question.facts(input));
  const problem = facts.error instanceof Problem ? facts.error : null;
  const f = facts.data;
  return (
    <div className="grid gap-8 lg:grid-cols-[24rem_1fr]">
      <div className="space-y-8">
        <SizeFields value={size} problem={problem} onChange={setSize} />
        <Squareness size={input} />
      </div>
      {problem && <Caution title="This sheet will not do">{problem.message}</Caution>}
      {f && (
        <div className="space-y-6">
          <Figure
            value={lengthValue(f.squares[0]?.side_mm ?? 0, units)}
            unit={`${units} is the largest square`}
          >
            {f.size ? `${f.size}: ` : ""}
            {f.squares
              .map(
                (s, i) =>
                  `${i > 0 ? "then " : ""}${s.count} ${s.count === 1 ? "square" : "squares"} of ${length(s.side_mm, units)}`,
              )
              .join(", ")}
            .
          </Figure>
          <table className="w-full max-w-xl">
            <caption className="title pb-1 text-left text-xl">Equal squares from one sheet</caption>
            <thead>
              <tr className="text-left text-sm text-quiet">
                <th scope="col">Squares</th>
                <th scope="col">Side</th>
              </tr>
            </thead>
            <tbody>
              {f.equal.map((s) => (
                <tr key={s.count} className="border-t border-line">
                  <td className="py-1">{s.count}</td>
                  <td className="figure text-xl">{length(s.side_mm, units)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <section aria-labelledby="others">
            <h2 id="others" className="text-xl">
              If the pattern wants another size
            </h2>
            <ul className="mt-2 space-y-2">
              {f.others.map((o) => (
                <li key={o.name} className="border-l-4 border-line pl-3">
                  <b>{o.name}</b>{" "}
                  {o.possible
                    ? "can be cut from this sheet as it is."
                    : `cannot be cut from this sheet. ${sameProportions(o, units)}`}
                </li>
              ))}
            </ul>
          </section>
        </div>
      )}
    </div>
  );
}
