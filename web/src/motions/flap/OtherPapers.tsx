import type { Clinic } from "../../api/client";
import { useUnits } from "../../settings";
import { number, outcomeRange, outcomeValue, thickness } from "../../units";
import type { PaperDrawing } from "./types";

/** The flapper on other papers: thin to heavy, and its own with the grain turned. */
export function OtherPapers({ clinic }: { clinic: Clinic }) {
  const units = useUnits();
  const told = clinic.told?.kind === "papers" ? (clinic.told.data as PaperDrawing) : undefined;
  if (!told) return <p>This is reckoned for birds, and for flappers on a finger.</p>;
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">The same folds on other papers, predicted</caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col">Paper</th>
            <th scope="col" className="pl-3 text-right">
              Stiffness, 10⁻⁴ N m
            </th>
            <th scope="col" className="pl-3 text-right">
              {told.rows[0]?.outcome.label}
            </th>
            <th scope="col" className="pl-3 text-right">
              {told.effort}
            </th>
            <th scope="col" className="pl-4">
              How it goes
            </th>
          </tr>
        </thead>
        <tbody>
          {told.rows.map((r) => (
            <tr
              key={`${r.gsm} ${r.grain}`}
              className={`border-t border-line ${r.here && r.grain === "" ? "bg-panel font-bold" : ""}`}
            >
              <th scope="row" className={`py-1.5 ${r.here && r.grain === "" ? "" : "font-normal"}`}>
                {number(r.gsm, 0)} g/m², {thickness(r.thickness_mm, units)}
                {r.here && (r.grain === "" ? ", yours" : `, yours, grain ${r.grain} the folds`)}
              </th>
              <td className="py-1.5 pl-3 text-right">{number(r.stiffness, 2)}</td>
              <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                {outcomeValue(r.outcome.middle, r.outcome, units)}{" "}
                <span className="text-sm text-quiet">{outcomeRange(r.outcome, units)}</span>
              </td>
              <td className="py-1.5 pl-3 text-right">{number(r.effort, 3)}</td>
              <td className="py-1.5 pl-4">{r.mode}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-quiet">
        Knobs as they are set on the table. Which of two papers is easier is right; the numbers themselves
        have the bands of the mat.
      </p>
    </div>
  );
}
