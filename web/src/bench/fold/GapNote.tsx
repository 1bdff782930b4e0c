import type { Step } from "../../api/client";
import { PaperPicture } from "../../parts/PaperPicture";
import { useUnits } from "../../settings";
import { number, smallLength, thickness } from "../../units";

/** How exactly a fold meets its target, for the thickness of what lies inside it. */
export function GapNote({
  gap: g,
  colours,
}: {
  gap: NonNullable<Step["gap"]>;
  colours: { front: string; back: string };
}) {
  const units = useUnits();
  const words = {
    touch: "Let them touch",
    leave: `Leave ${smallLength(g.mm, units, 2)}`,
    overlap: `Let it overlap by ${smallLength(g.mm, units, 2)}`,
  }[g.verdict];
  const layers = g.inside === 1 ? "One layer lies" : `${g.inside} layers lie`;
  return (
    <section aria-label="How exactly they meet">
      <p className="title text-xl">{words}</p>
      <p className="text-sm text-quiet">
        {g.inside === 0
          ? "Nothing lies inside this fold"
          : `${layers} inside this fold and push up to ${thickness(g.need_mm, units)} out`}
        {g.leaves_mm !== 0 &&
          `; the pattern ${g.leaves_mm > 0 ? "leaves" : "goes past by"} ${smallLength(Math.abs(g.leaves_mm), units, 2)}`}
        . {g.inside > 0 && "Computed for a round fold; pressed flat it is less."}
      </p>
      <PaperPicture
        picture={g.picture}
        next={g.over}
        colours={colours}
        label={`A cut through the fold, magnified: ${words}`}
        className="mt-1 h-24 w-full"
      />
      <p className="text-sm text-quiet">
        A cut through the fold. Printed {units === "mm" ? "60 mm" : "2 3/8 in"} wide it would be{" "}
        {number(g.times, 0)} times life size; the lines of points are where the target and the flap end.
      </p>
    </section>
  );
}
