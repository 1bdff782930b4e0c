import { memo } from "react";
import { Link } from "react-router";
import type { Moving, Reading } from "../../api/client";
import { useUnits } from "../../settings";
import { readingUnit, readingValue, type Units } from "../../units";

/** The numbers of a toy: value, band, what is usual, and what they mean. */
export const Readings = memo(List);

function List({ readings, way }: { readings: Reading[]; way: Moving }) {
  const units = useUnits();
  return (
    <div>
      <h2 className="title mt-4 text-lg">Numbers</h2>
      <div className="grid gap-x-8 sm:grid-cols-2 xl:grid-cols-3">
        {readings.map((r) => (
          <details key={r.id} className="border-t border-line py-1.5" data-reading={r.id}>
            <summary className="flex flex-wrap items-baseline justify-between gap-x-3">
              <span className="text-quiet">{r.label}</span>
              <span className={`title text-lg whitespace-nowrap ${r.predicted ? "text-lavender" : ""}`}>
                {readingValue(r.value, r.unit, r.decimals, units)} {readingUnit(r.unit, units)}
              </span>
              {r.predicted && <span className="w-full text-right text-sm text-quiet">{band(r, units)}</span>}
            </summary>
            <p className="mt-1 text-sm">
              {r.meaning} {r.says}
            </p>
            <p className="text-sm text-quiet">
              Moved by: {r.moved_by}.
              {r.usual_hi !== 0 &&
                ` Usual: ${readingValue(r.usual_lo, r.unit, r.decimals, units)} to ${readingValue(r.usual_hi, r.unit, r.decimals, units)}${behind(readingUnit(r.unit, units))}.`}{" "}
              {!r.predicted && "Computed from every layer, for even paper without thickness."}
            </p>
          </details>
        ))}
      </div>
      <p className="mt-2 text-sm text-quiet">
        Those in lavender are predicted, {way.accuracy}.{" "}
        <Link to={`/not-known/${way.name}`} className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
    </div>
  );
}

/** A unit as it stands behind its number. */
const behind = (unit: string) => (unit === "" || unit === "°" ? unit : ` ${unit}`);

const band = (r: Reading, units: Units) =>
  `predicted, ${readingValue(r.lo, r.unit, r.decimals, units)} to ${readingValue(r.hi, r.unit, r.decimals, units)}`;
