import type { Care } from "../../api/client";
import { useUnits } from "../../settings";
import { costOfSlip, number, smallLength } from "../../units";

const classWords: Record<Care["class"], string> = {
  critical: "Take care",
  normal: "Ordinary care",
  free: "Free",
};

/** What a millimetre here costs, what to press with, and what is normal. */
export function CareNote({ care: c, brief = false }: { care: Care; brief?: boolean }) {
  const units = useUnits();
  if (!c.made && !c.cuts) return null;
  return (
    <section aria-label="Care">
      <p className="title text-xl">{classWords[c.class]}</p>
      <p>
        {c.per_mm > 0.05
          ? `${costOfSlip(c.per_mm, c.worst, units)}.`
          : "What is off here is not seen at the end."}
        {c.author && ` The author calls it ${c.author}.`}
      </p>
      {!brief && (
        <ul className="mt-1 list-inside list-disc text-sm">
          {c.tool && <li>Press with {c.tool}.</li>}
          {c.hold && (
            <li>
              Hold the paper at the cross. That the layers slide up to {smallLength(c.slide_mm, units)}{" "}
              against each other is normal.
            </li>
          )}
          {c.drift_mm > 0 && (
            <li>
              In the outermost layer of the pack a crease lies up to {smallLength(c.drift_mm, units)} off, by
              the thickness of what lies between.
            </li>
          )}
          {c.opens_deg > 0 && (
            <li>It opens by itself to about {number(c.opens_deg, 0)}°: normal, computed for dry paper.</li>
          )}
          {c.strain && <li className="font-semibold">{c.strain}.</li>}
        </ul>
      )}
    </section>
  );
}
