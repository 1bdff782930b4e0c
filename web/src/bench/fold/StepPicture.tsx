import type { Overlay, StepLook } from "../../api/client";
import { PaperPicture } from "../../parts/PaperPicture";
import { seen, useSeeing } from "../frame/folding";
import type { Ready } from "../frame/useBench";

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
  const [see] = useSeeing();
  const { good } = ready;
  const s = good.steps[step - 1];
  const before = step === 1 ? good.start : good.steps[step - 2]?.after;
  if (!s || !before) return null;
  const next: Overlay =
    see.xray && look ? { ...s.next, strokes: [...look.xray.strokes, ...s.next.strokes] } : s.next;
  return (
    <PaperPicture
      picture={before}
      next={next}
      hold={hold}
      transform={seen(see, s.away_deg)}
      colours={{ front: good.sheet.front, back: good.sheet.back }}
      label={`${see.mirror ? "Mirror image. " : ""}${s.describe}`}
      className={className}
    />
  );
}

/** Where a step happens, magnified, when that is small. */
export function Magnifier({
  ready,
  step,
  className = "",
}: {
  ready: Ready;
  step: number;
  className?: string;
}) {
  const [see] = useSeeing();
  const { good } = ready;
  const s = good.steps[step - 1];
  const before = step === 1 ? good.start : good.steps[step - 2]?.after;
  if (!s?.focus || !before) return null;
  return (
    <figure className={`border-2 border-ink bg-panel ${className}`}>
      <PaperPicture
        picture={before}
        next={s.next}
        view={s.focus}
        transform={seen(see, s.away_deg)}
        colours={{ front: good.sheet.front, back: good.sheet.back }}
        label=""
        className="aspect-square w-full"
      />
      <figcaption className="text-center text-xs">magnified</figcaption>
    </figure>
  );
}
