import type { Overlay, StepLook } from "../api/client";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { inUnits } from "../units";
import { seen, useSeeing } from "./folding";
import type { Ready } from "./useBench";

/** The paper before a step with what to do, seen as the person likes it. */
export function StepPicture({
  ready,
  step,
  look,
  hold,
  className = "",
}: {
  ready: Ready;
  step: number;
  look?: StepLook;
  hold?: readonly [number, number] | number[];
  className?: string;
}) {
  const units = useUnits();
  const [see] = useSeeing();
  const { good } = ready;
  const s = good.steps[step - 1];
  const before = step === 1 ? good.start : good.steps[step - 2]?.after;
  if (!s || !before) return null;
  const next: Overlay =
    see.xray && look ? { ...s.next, strokes: [...look.xray.strokes, ...s.next.strokes] } : s.next;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const whole = (
    <PaperPicture
      picture={before}
      next={next}
      hold={hold}
      transform={seen(see, s.away_deg)}
      colours={colours}
      label={`${see.mirror ? "Mirror image. " : ""}${inUnits(s.describe, units)}`}
      className={s.focus ? "h-full w-full" : className}
    />
  );
  if (!s.focus) return whole;
  return (
    <div className={`relative ${className}`}>
      {whole}
      <figure className="pointer-events-none absolute top-0 right-0 w-2/5 max-w-64 border-2 border-ink bg-panel">
        <PaperPicture
          picture={before}
          next={next}
          view={s.focus}
          transform={seen(see, s.away_deg)}
          colours={colours}
          label=""
          className="aspect-square w-full"
        />
        <figcaption className="px-1 text-center text-xs">magnified</figcaption>
      </figure>
    </div>
  );
}
