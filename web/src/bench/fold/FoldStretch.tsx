import { useCallback, useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Knob, type Step } from "../../api/client";
import { useShortcuts } from "../../keys";
import { Button, Check, Figure } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { StepWords } from "../../parts/StepWords";
import { useUnits } from "../../settings";
import { knobValue, layersOf, length, thickness } from "../../units";
import { CareNote } from "./CareNote";
import { CreaseMap } from "./CreaseMap";
import { seen, useCare, useLook, useSeeing } from "../frame/folding";
import { GapNote } from "./GapNote";
import { MatHead } from "../frame/MatHead";
import { Others } from "./Others";
import { Placements } from "./Placement";
import { Legend } from "./Legend";
import { InTheRound } from "../../parts/InTheRound";
import { Impossible, Knobs, Mat, MovedDraft, Slip, WayOn } from "../frame/Slip";
import { SeeingChoice } from "./SeeingChoice";
import { LooksDifferent, OffItsPlace } from "./WentWrong";
import { useReached } from "./useReached";
import { Guards, Halfway, Magnifier, Optional, OtherSide, StepPicture, ZoomNote } from "./StepPicture";
import { StepAid } from "./StepAid";
import type { Ready } from "../frame/useBench";

const dashes: Record<string, string | undefined> = { crease: "9 6", valley: "9 6", mountain: "14 5 2.5 5" };

/**
 * The step that the address has reached. Keys may come faster than the page is
 * drawn, and the address is ahead of the screen; undefined once it has left.
 */
function stepInAddress(): number | undefined {
  const m = /\/fold(?:\/(\d+))?$/.exec(window.location.pathname);
  return m ? Number(m[1] ?? 1) : undefined;
}

/** One step: the paper before, with what to do, and after. */
export function FoldStretch({ ready, step }: { ready: Ready; step: number }) {
  const { build, good, bench } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [layers, setLayers] = useState(false);
  const [round, setRound] = useState(false);
  const [behind, setBehind] = useState(0);
  const s = good.steps[step - 1];
  const last = good.steps.length;
  const made = useMemo(() => good.steps.filter((x) => x.made).map((x) => x.no), [good.steps]);
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const { show } = bench;
  const [see] = useSeeing();
  const [different, setDifferent] = useState(0);
  const [mapped, setMapped] = useState(0);
  const [off, setOff] = useState(0);
  const look = useLook(ready, step, see.xray || mapped === step);
  const care = useCare(ready)[step - 1];
  const go = useCallback(
    (by: number) => {
      const here = stepInAddress();
      if (here === undefined) return;
      let to = Math.max(1, here + by);
      // Creases that the sheet brought along are passed over.
      if (Math.abs(by) === 1) {
        while (to > 1 && to <= last && made.includes(to)) to += by;
      }
      if (to <= last) {
        void navigate(`/bench/${build.id}/fold/${to}`);
        return;
      }
      void api.keepStep(build.id, last).then(show);
      void navigate(`/bench/${build.id}/set`);
    },
    [navigate, build.id, last, show, made],
  );
  useShortcuts(
    useMemo(
      () => [
        { key: " ", label: "Next step", run: () => go(1) },
        { key: "ArrowRight", label: "Next step", run: () => go(1) },
        { key: "ArrowLeft", label: "Step before", run: () => go(-1) },
        { key: "Home", label: "First step", run: () => go(-last) },
        { key: "End", label: "Last step", run: () => void navigate(`/bench/${build.id}/fold/${last}`) },
        { key: "r", label: "Show the step in the round, or flat", run: () => setRound((v) => !v) },
        { key: "l", label: "Show or hide the layer map", run: () => setLayers((v) => !v) },
      ],
      [go, navigate, build.id, last],
    ),
  );
  useReached(ready, step);
  if (!s) return null;
  const atThisStep = (k: Knob) => k.steps.includes(step);
  const stands = s.round;
  return (
    <>
      <Slip label="What to do" className="max-lg:order-first lg:pb-0">
        <p className="flex items-center gap-3 text-quiet">
          <span>
            Step {step} of {last}
          </span>
          <span className="flex items-center gap-2 text-ink">
            {dashes[s.op] && (
              <svg viewBox="0 0 48 4" className="h-1 w-12" aria-hidden="true">
                <path d="M0 2H48" stroke="currentColor" strokeWidth="2" strokeDasharray={dashes[s.op]} />
              </svg>
            )}
            {s.title}
          </span>
        </p>
        <Others build={build.id} step={step} way="fold" />
        <Impossible ready={ready} unless={atThisStep} />
        <div aria-live="polite">
          {s.made && (
            <p className="mb-2 border-2 border-tide p-2 font-semibold">
              This crease is there already, from getting the sheet. Nothing to fold here.
            </p>
          )}
          {step === 1 && good.nearly && <p className="mb-2 border-l-4 border-caution pl-2">{good.nearly}</p>}
          <StepWords step={s} brief={see.brief} />
          {s.cautions.map((c) => (
            <p key={c.id} className="mt-2 border-2 border-on-mark bg-caution px-2 py-1 text-on-mark">
              <b>{c.title}.</b> {c.text}
            </p>
          ))}
        </div>
      </Slip>
      <Mat>
        <MatHead ready={ready} className="max-lg:order-last max-lg:mt-6" />
        <Link
          to={`/bench/${build.id}/follow/${step}`}
          className="mb-2 self-start border-2 border-ink bg-panel px-4 py-2 font-semibold hover:bg-ground"
        >
          Follow, full screen
        </Link>
        <div className="grid min-h-0 grow items-stretch gap-4 sm:grid-cols-[3fr_2fr]">
          <figure className="flex min-h-0 flex-col">
            <figcaption className="title flex items-center justify-between text-lg">
              <span>{behind === step && !round ? "From the other side" : "Do this"}</span>
              <span className="flex gap-3">
                <Check
                  checked={behind === step}
                  onChange={(v) => setBehind(v ? step : 0)}
                  className="font-text text-sm font-normal"
                >
                  other side
                </Check>
                <Check checked={round} onChange={setRound} className="font-text text-sm font-normal">
                  in the round
                </Check>
              </span>
            </figcaption>
            {round ? (
              <InTheRound
                key={step}
                pattern={ready.pattern.id}
                setup={ready.setup}
                step={step}
                className="h-[22rem] w-full sm:h-[26rem] lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
              />
            ) : behind === step ? (
              <OtherSide
                ready={ready}
                step={step}
                className="h-[19rem] w-full sm:h-[24rem] lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
              />
            ) : (
              <StepPicture
                ready={ready}
                step={step}
                look={look}
                hold={care?.hold}
                className="h-[19rem] w-full sm:h-[24rem] lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
              />
            )}
            {!round && (
              <div className="flex items-end justify-end gap-2">
                <div className="grow">
                  <Legend next={s.next} />
                  <ZoomNote ready={ready} step={step} />
                </div>
                <Halfway ready={ready} step={step} className="w-36 shrink-0" />
                <Magnifier ready={ready} step={step} className="w-36 shrink-0" />
              </div>
            )}
          </figure>
          <figure className="flex min-h-0 flex-col">
            <figcaption className="title flex items-center justify-between text-lg">
              <span>{layers ? "Layers afterwards" : "It becomes this"}</span>
              <Check checked={layers} onChange={setLayers} className="font-text text-sm font-normal">
                layer map
              </Check>
            </figcaption>
            <PaperPicture
              picture={stands ?? s.after}
              view={s.after_frame}
              transform={stands ? undefined : seen({ ...see, turn: "drawn" }, 0)}
              layers={layers && !stands ? s.layers : undefined}
              showCentre={!layers && !stands}
              colours={colours}
              label={`After step ${step}: ${length(s.width_mm, units)} by ${length(s.height_mm, units)}, ${layersOf(s.max_layers)} at the thickest`}
              className="h-[15rem] w-full sm:h-[24rem] lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
            />
            <p className="text-sm text-quiet">
              {length(s.width_mm, units)} × {length(s.height_mm, units)}, {layersOf(s.max_layers)} at the
              thickest.{!stands && " ◕ is the centre of mass."}
            </p>
          </figure>
        </div>
      </Mat>
      <Slip label="Slip" className="max-lg:pb-24 lg:pt-0">
        <StepFigure step={s} />
        {(s.shift_mm !== 0 || s.tilt_deg !== 0) && (
          <p>
            The crease lies off its landmarks on purpose: {s.shift_mm !== 0 && length(s.shift_mm, units)}
            {s.shift_mm !== 0 && s.tilt_deg !== 0 && " and "}
            {s.tilt_deg !== 0 && `${knobValue(s.tilt_deg, "deg", units)} of slope`}, as the knobs below say.
          </p>
        )}
        <Guards guards={s.guards} />
        <Optional ready={ready} step={step} />
        {s.looks && (
          <p>
            <b>It looks right when</b> {s.looks}.
          </p>
        )}
        {care && <CareNote care={care} />}
        {s.aid && <StepAid key={`aid ${step}`} aid={s.aid} build={build.id} />}
        {different === step ? (
          <LooksDifferent ready={ready} step={step} />
        ) : (
          <Button onClick={() => setDifferent(step)}>Mine looks different</Button>
        )}
        {off === step ? (
          <OffItsPlace ready={ready} step={step} onClose={() => setOff(0)} />
        ) : (
          good.steps.some((x) => x.no <= step && !x.made) && (
            <Button onClick={() => setOff(step)}>I folded it off its place</Button>
          )
        )}
        {mapped === step ? (
          <CreaseMap key={`map ${step}`} ready={ready} step={step} look={look} />
        ) : (
          <Button onClick={() => setMapped(step)}>Where does it come from?</Button>
        )}
        <Button onClick={() => void bench.foldTo(build.step >= step ? step - 1 : step)}>
          {build.step >= step ? "Fold again from here" : "I have it folded up to here"}
        </Button>
        <SeeingChoice />
        {s.gap && <GapNote gap={s.gap} colours={colours} />}
        <Placements key={`places ${step}`} ready={ready} step={step} />
        <Knobs ready={ready} only={atThisStep} />
        <MovedDraft ready={ready} />
        <WayOn>
          <Button className="grow" disabled={step === 1} onClick={() => go(-1)}>
            ← Back
          </Button>
          <Button weight="main" className="grow-2" onClick={() => go(1)}>
            {step === last ? "Done: set and balance" : "Next →"}
          </Button>
        </WayOn>
      </Slip>
    </>
  );
}

/** The number that matters at this step. */
function StepFigure({ step: s }: { step: Step }) {
  const units = useUnits();
  if (s.sets_from)
    return (
      <Figure value={knobValue(s.angle_deg, "deg", units)} unit={s.sets_from}>
        {s.sets_says}
      </Figure>
    );
  if (s.layers_folded === 0) return null;
  return (
    <Figure value={String(s.layers_folded)} unit={s.layers_folded === 1 ? "layer to fold" : "layers to fold"}>
      {thickness(s.folded_mm, units)} of paper at the crease.
    </Figure>
  );
}
