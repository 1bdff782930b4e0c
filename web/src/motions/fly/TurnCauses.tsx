import type { Clinic } from "../../api/client";
import type { TurnTold } from "./types";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";

/** Left against right: what differs, and what would explain the turn that was seen. */
export function TurnCauses({ clinic }: { clinic: Clinic }) {
  const units = useUnits();
  const told = clinic.told?.kind === "turn" ? (clinic.told.data as TurnTold) : undefined;
  const turn = told?.turn_deg ?? 0;
  return (
    <div className="flex flex-col gap-4">
      <section aria-label="The fold">
        <h2 className="text-lg">In the fold</h2>
        {clinic.residual.length === 0 ? (
          <p>This pattern names no landmarks in pairs.</p>
        ) : (
          <table className="mt-1">
            <tbody>
              {clinic.residual.map((r) => (
                <tr key={r.left + r.right} className="border-t border-line">
                  <th scope="row" className="pr-6 text-left font-normal">
                    {r.left} and {r.right}
                  </th>
                  <td className="text-right">
                    {r.mm < 0.005 ? "alike" : `${smallLength(r.mm, units)} from mirroring each other`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <p className="mt-1 text-sm text-quiet">
          As the pattern folds on this sheet. What your hands did is measured on the toy: the V and the tail
          edges, at Set.
        </p>
      </section>
      <section aria-label="The turn">
        <h2 className="text-lg">From the turn back to its cause</h2>
        {!told || turn === 0 ? (
          <p>No turn was noted at this tweak.</p>
        ) : (
          <>
            <p>
              It turned {turn < 0 ? "left" : "right"},{" "}
              {told.turn_n > 0
                ? `by ${number(Math.abs(turn), 0)}° at the end: from how far aside ${told.turn_n} throws landed`
                : `taken for ${number(Math.abs(turn), 0)}°, since only the side was noted. Note how far aside it lands to know it`}
              . Any one of these would explain it:
            </p>
            <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Causes of the turn">
              <table className="mt-2 w-full text-left">
                <thead className="text-sm text-quiet">
                  <tr>
                    <th scope="col">Perhaps</th>
                    <th scope="col" className="pr-4 text-right">
                      by
                    </th>
                    <th scope="col" className="pr-4 text-right">
                      share
                    </th>
                    <th scope="col">one degree turns it by</th>
                  </tr>
                </thead>
                <tbody>
                  {told.turn.map((c) => (
                    <tr key={c.knob} className="border-t border-line">
                      <th scope="row" className="py-1.5 pr-4 font-normal">
                        {c.words}
                      </th>
                      <td className="py-1.5 pr-4 text-right whitespace-nowrap">
                        {number(Math.abs(c.deg))}°{c.mm > 0 && `, ${smallLength(c.mm, units)}`}
                      </td>
                      <td className="py-1.5 pr-4 text-right">{number(100 * c.weight, 0)} %</td>
                      <td className="py-1.5">
                        {number(Math.abs(c.per_deg))}°{c.unsure && "; the model is not sure of the side"}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </>
        )}
      </section>
    </div>
  );
}
