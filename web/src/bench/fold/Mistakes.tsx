import type { StepLook } from "../../api/client";
import { PaperPicture, type FaceColours } from "../../parts/PaperPicture";

/** The likeliest mistakes at a step, each folded on this sheet. */
export function Mistakes({
  look,
  right,
  colours,
}: {
  look: StepLook | undefined;
  right: StepLook["mistakes"][number]["picture"];
  colours: FaceColours;
}) {
  if (!look) return <p aria-busy="true">Folding the mistakes …</p>;
  return (
    <section aria-label="Mine looks different">
      <h2 className="text-2xl">Which one is yours?</h2>
      <ul className="mt-2 grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        <li className="border-2 border-tide bg-panel p-3">
          <PaperPicture picture={right} colours={colours} label="As it should be" className="h-40 w-full" />
          <p className="font-semibold">As it should be</p>
        </li>
        {look.mistakes.map((m) => (
          <li key={m.kind} className="border border-line bg-panel p-3">
            <PaperPicture picture={m.picture} colours={colours} label={m.words} className="h-40 w-full" />
            <p className="font-semibold">{m.words}</p>
            <p>{m.cure}</p>
          </li>
        ))}
      </ul>
      {look.mistakes.length === 0 && (
        <p className="mt-2">
          No usual mistake of this step could be folded. Compare with the picture of the step before.
        </p>
      )}
    </section>
  );
}
