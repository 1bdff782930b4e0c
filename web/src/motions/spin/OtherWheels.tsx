import type { Clinic } from "../../api/client";
import { useUnits } from "../../settings";
import { number, outcomeRange, outcomeValue, smallLength } from "../../units";
import type { WheelsDrawing } from "./types";

const toldOf = (clinic: Clinic) =>
  clinic.told?.kind === "wheels" ? (clinic.told.data as WheelsDrawing) : undefined;

/** Blown and dropped, either way up: what is predicted, and what was tried. */
export function TestGrid({ clinic }: { clinic: Clinic }) {
  const units = useUnits();
  const told = toldOf(clinic);
  if (!told) return <p>This is for wheels that air turns.</p>;
  const ups = [...new Set(told.grid.map((c) => c.up))];
  const kinds = [...new Set(told.grid.map((c) => c.kind))];
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Four ways to try it" data-grid="">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">Four ways to try it</caption>
        <thead className="text-sm text-quiet">
          <tr>
            <td />
            {ups.map((u) => (
              <th key={u} scope="col" className="pl-3">
                air meets {u}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {kinds.map((k) => (
            <tr key={k} className="border-t border-line align-top">
              <th scope="row" className="py-2">
                {told.grid.find((c) => c.kind === k)?.how}
              </th>
              {ups.map((u) => {
                const c = told.grid.find((x) => x.kind === k && x.up === u);
                if (!c) return <td key={u} />;
                return (
                  <td key={u} className="py-2 pl-3" data-cell={`${k} ${u}`}>
                    <p>
                      <span className="figure text-2xl">
                        {c.tries > 0 && c.measured > 0
                          ? outcomeValue(c.measured, c.outcome, units)
                          : outcomeValue(c.outcome.middle, c.outcome, units)}
                      </span>{" "}
                      {k === "blow" && "turns a second"}
                    </p>
                    <p className="text-sm text-quiet">
                      {c.tries > 0
                        ? `measured, ${c.tries} ${c.tries === 1 ? "trial" : "trials"}; predicted ${outcomeValue(c.outcome.middle, c.outcome, units)}, ${outcomeRange(c.outcome, units)}: ${c.mode}`
                        : `predicted, ${outcomeRange(c.outcome, units)}: ${c.mode}; not tried yet`}
                    </p>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Wheels with other numbers of blades, from the same sheet. */
export function OtherWheels({ clinic }: { clinic: Clinic }) {
  const units = useUnits();
  const told = toldOf(clinic);
  if (!told || told.of.length === 0)
    return <p>This pattern has one number of blades only. Pinwheels have three to eight.</p>;
  return (
    <div
      className="overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label="Other numbers of blades"
      data-others=""
    >
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">
          Other numbers of blades from the same sheet, predicted
        </caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col">Blades</th>
            <th scope="col" className="pl-3 text-right">
              Apart
            </th>
            <th scope="col" className="pl-3 text-right">
              Layers of the pack
            </th>
            <th scope="col" className="pl-3 text-right">
              Reach, mass
            </th>
            <th scope="col" className="pl-3 text-right">
              Blown, turns a second
            </th>
            <th scope="col" className="pl-3 text-right">
              Start, mN mm
            </th>
            <th scope="col" className="pl-3 text-right">
              Time to the floor
            </th>
          </tr>
        </thead>
        <tbody>
          {told.of.map((o) => (
            <tr key={o.blades} className={`border-t border-line ${o.here ? "bg-panel font-bold" : ""}`}>
              <th scope="row" className={`py-1.5 ${o.here ? "" : "font-normal"}`}>
                {o.blades}
                {o.here && ", yours"}
              </th>
              <td className="py-1.5 pl-3 text-right">{number(o.apart, 1)}°</td>
              <td className="py-1.5 pl-3 text-right">{o.layers}</td>
              <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                {smallLength(o.reach_mm, units, 0)}, {number(o.mass_g, 2)} g
              </td>
              <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                {outcomeValue(o.blown.middle, o.blown, units)}{" "}
                <span className="text-sm font-normal text-quiet">{outcomeRange(o.blown, units)}</span>
              </td>
              <td className="py-1.5 pl-3 text-right">{number(o.starts, 1)}</td>
              <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                {outcomeValue(o.fall.middle, o.fall, units)}{" "}
                <span className="text-sm font-normal text-quiet">{outcomeRange(o.fall, units)}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-quiet">
        Each as large as the sheet gives, knobs as they are set. Which of two is faster is right; the numbers
        themselves have the bands of the mat.
      </p>
    </div>
  );
}
