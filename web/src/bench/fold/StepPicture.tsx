import type { Overlay, StepLook } from "../../api/client";
import { PaperPicture } from "../../parts/PaperPicture";
import { seen, useGlance, useSeeing } from "../frame/folding";
import type { Ready } from "../frame/useBench";

/** The paper before a step, as it is shown. */
function before({ good }: Ready, step: number) {
  return good.steps[step - 1]?.before ?? (step === 1 ? good.start : good.steps[step - 2]?.after);
}

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
  const picture = before(ready, step);
  if (!s || !picture) return null;
  const next: Overlay =
    see.xray && look ? { ...s.next, strokes: [...look.xray.strokes, ...s.next.strokes] } : s.next;
  return (
    <PaperPicture
      picture={picture}
      next={next}
      view={s.frame.view}
      hold={s.before ? undefined : hold}
      transform={seen(see, s.before ? 0 : s.away_deg)}
      parts={see.parts}
      colours={{ front: good.sheet.front, back: good.sheet.back }}
      label={`${see.mirror ? "Mirror image. " : ""}${s.describe}`}
      className={className}
    />
  );
}

/** By how much a step is drawn larger than the largest picture of its pattern. */
export function ZoomNote({ ready, step }: { ready: Ready; step: number }) {
  const zoom = ready.good.steps[step - 1]?.frame.zoom ?? 1;
  if (zoom === 1) return null;
  return <p className="text-xs text-quiet">Drawn at {zoom} times the scale of the open sheet.</p>;
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
  const picture = before(ready, step);
  if (!s?.focus || !picture) return null;
  return (
    <figure className={`border-2 border-ink bg-panel ${className}`}>
      <PaperPicture
        picture={picture}
        next={s.next}
        view={s.focus}
        transform={seen(see, s.before ? 0 : s.away_deg)}
        colours={{ front: good.sheet.front, back: good.sheet.back }}
        label=""
        className="aspect-square w-full"
      />
      <figcaption className="text-center text-xs">magnified</figcaption>
    </figure>
  );
}

/** What must be done at this step, because it cannot be done later. */
export function Guards({ guards }: { guards: string[] }) {
  return guards.map((g) => (
    <p key={g} className="border-l-4 border-tide pl-2">
      <b>Not later:</b> {g}.
    </p>
  ));
}

/** Of an optional step that it may be left out, with what that changes. */
export function Optional({ ready, step }: { ready: Ready; step: number }) {
  const glance = useGlance(ready, step);
  if (!ready.good.steps[step - 1]?.optional) return null;
  return <p>You may leave this step out. {glance?.left_out}</p>;
}

/** The paper in the middle of a step whose two ends do not show the way. */
export function Halfway({ ready, step, className = "" }: { ready: Ready; step: number; className?: string }) {
  const { good } = ready;
  const glance = useGlance(ready, step);
  if (!good.steps[step - 1]?.halved || !glance) return null;
  if (!glance.halfway) return <p className={`text-xs text-quiet ${className}`}>{glance.why}</p>;
  return (
    <figure className={`border border-line bg-panel ${className}`}>
      <PaperPicture
        picture={glance.halfway}
        colours={{ front: good.sheet.front, back: good.sheet.back }}
        label={`Step ${step} half-way`}
        className="aspect-square w-full"
      />
      <figcaption className="text-center text-xs">half-way</figcaption>
    </figure>
  );
}

/** The paper before a step as it looks from behind. */
export function OtherSide({
  ready,
  step,
  className = "",
}: {
  ready: Ready;
  step: number;
  className?: string;
}) {
  const { good } = ready;
  const other = useGlance(ready, step)?.other;
  if (!other) return <p className={className}>This step is drawn in the round.</p>;
  return (
    <PaperPicture
      picture={other}
      colours={{ front: good.sheet.front, back: good.sheet.back }}
      label={`The paper before step ${step} from the other side`}
      className={className}
    />
  );
}
