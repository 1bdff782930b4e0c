import type { Clinic } from "../../api/client";
import { useUnits } from "../../settings";
import { changeWords, smallLength } from "../../units";
import type { AimDrawing } from "./types";

const oClock = (h: number) => `${Math.round(h) || 12} o'clock`;

/** What brings the point and the weight together, ranked, and what each fold does to the balance. */
export function WhereToAim({ clinic }: { clinic: Clinic }) {
  const units = useUnits();
  const told = clinic.told?.kind === "aim" ? (clinic.told.data as AimDrawing) : undefined;
  if (!told) return <p>This is weighed for toys that balance on a point.</p>;
  const mm = (v: number) => smallLength(v, units, 2);
  const head = "text-sm text-quiet";
  return (
    <div className="flex flex-col gap-5">
      <section aria-label="Choices">
        <h2 className="text-lg">Bring point and weight together</h2>
        {told.choices.length === 0 ? (
          <p>
            The point lies on the balance, to {mm(Math.max(0.05, told.offset_mm))}: there is nothing to
            choose.
          </p>
        ) : (
          <div className="overflow-x-auto">
            <table className="mt-1 w-full text-left">
              <thead className={head}>
                <tr>
                  <th scope="col">Choice</th>
                  <th scope="col" className="pl-3 text-right">
                    Offset left
                  </th>
                  <th scope="col" className="pl-3 text-right">
                    Changes its look by
                  </th>
                </tr>
              </thead>
              <tbody>
                {told.choices.map((c) => (
                  <tr key={c.words} className="border-t border-line align-top">
                    <th scope="row" className="py-1.5 font-normal">
                      {c.words.charAt(0).toUpperCase() + c.words.slice(1)}
                      {c.changes.length > 0 && (
                        <span className="block text-sm text-quiet">
                          {c.changes.map((d) => changeWords(d, units)).join(", ")}
                        </span>
                      )}
                      {c.new_one && <span className="block text-sm text-quiet">on a new sheet</span>}
                    </th>
                    <td className="py-1.5 pl-3 text-right whitespace-nowrap">{mm(c.left_mm)}</td>
                    <td className="py-1.5 pl-3 text-right whitespace-nowrap">{mm(c.looks_mm)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        <p className="mt-1 text-sm text-quiet">
          As set, the weight lies {mm(told.offset_mm)} from the point. Least left first, and among near ones
          what changes the toy least. Computed.
        </p>
      </section>
      <section aria-label="What each fold does">
        <h2 className="text-lg">What a fold does to the balance</h2>
        <div className="overflow-x-auto">
          <table className="mt-1 w-full text-left">
            <thead className={head}>
              <tr>
                <th scope="col">Fold</th>
                <th scope="col" className="pl-3 text-right">
                  {smallLength(1, units, 2)} past its mark moves it
                </th>
                <th scope="col" className="pl-3 text-right">
                  To cure
                </th>
              </tr>
            </thead>
            <tbody>
              {told.folds.map((f) => (
                <tr key={f.step} className="border-t border-line">
                  <th scope="row" className="py-1.5 font-normal">
                    {f.words}
                  </th>
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                    {mm(f.per_mm)}, towards {oClock(f.towards)}
                  </td>
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                    {f.cure_mm === 0
                      ? "nothing"
                      : `${mm(Math.abs(f.cure_mm))} ${f.cure_mm < 0 ? "short" : "past"}, ${mm(f.left_mm)} left`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p className="mt-1 text-sm text-quiet">To first order; good to a tenth for a millimetre.</p>
      </section>
    </div>
  );
}
