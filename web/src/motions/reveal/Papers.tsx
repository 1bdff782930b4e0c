import type { Clinic } from "../../api/client";
import { useUnits } from "../../settings";
import { number, smallLength, thickness } from "../../units";
import { HeadRow } from "../HeadRow";
import type { RingTold } from "./types";

/** The same ring from other papers: what thickness does to it. */
export function Papers({ clinic }: { clinic: Clinic }) {
  const told = clinic.told?.data as RingTold | undefined;
  const units = useUnits();
  if (!told) return <p>Nothing to tell yet.</p>;
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Papers compared">
      {told.trials > 0 && (
        <p className="mb-2">
          Faces found, the middle of {told.trials} trials:{" "}
          <b className="text-tide">{number(told.middle, 0)}</b> of {told.faces}.
        </p>
      )}
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">The same ring from other papers</caption>
        <HeadRow
          words={["Paper"]}
          numbers={["A layer", "Thickest place", "Creep zigzagged", "Creep rolled", "Flexes easily"]}
        />
        <tbody>
          {told.papers.map((r) => (
            <tr key={r.paper} className={`border-t border-line ${r.here ? "bg-panel font-bold" : ""}`}>
              <th scope="row" className="py-1">
                {r.paper}
              </th>
              <td className="text-right">{thickness(r.thick_mm, units)}</td>
              <td className="text-right">{thickness(r.place_mm, units)}</td>
              <td className="text-right">{smallLength(r.zigzag_mm, units)}</td>
              <td className="text-right">{smallLength(r.rolled_mm, units)}</td>
              <td className="text-right text-lavender">{number(r.flexes, 0)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-sm text-quiet">
        Creep: how far edges come out of place by thickness. Flexes easily: predicted, of a hundred; it rests
        on estimates of what is stiff, so compare papers by it.
      </p>
    </div>
  );
}
