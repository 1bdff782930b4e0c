import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { type Study as StudyData } from "../api/client";
import { question } from "../api/queries";
import { useShortcuts } from "../keys";
import { usePlainPaper } from "../paper";
import { Button, Caution, Figure, Check } from "../parts/controls";
import { InTheRound } from "../parts/InTheRound";
import { PaperPicture } from "../parts/PaperPicture";
import { StepWords } from "../parts/StepWords";
import { useUnits } from "../settings";
import { area, layersOf, length, number, smallLength } from "../units";
import { Main } from "../parts/Main";

type Look = "flat" | "round" | "map" | "hidden" | "layers" | "pocket";

const looks: Record<Look, string> = {
  flat: "Folded flat",
  round: "In the round",
  map: "Crease map",
  hidden: "What is hidden",
  layers: "Layers",
  pocket: "Best pocket",
};

/** The step that the address has reached: keys may come faster than the page is drawn. */
function stepInAddress(): number {
  return Number(/\/study\/[^/]+\/(\d+)$/.exec(window.location.pathname)?.[1] ?? 0);
}

/** A base or a single operation, looked at closely: its steps, and the finished paper. */
export function Study() {
  const { pattern = "", step: stepText } = useParams();
  const study = useQuery(question.study(pattern));
  const navigate = useNavigate();
  const steps = study.data?.replay.steps ?? [];
  const step = stepText ? Math.min(Math.max(1, Number(stepText) || 1), Math.max(1, steps.length)) : 0;
  const go = useCallback(
    (to: number) => {
      if (to < 0 || to > steps.length) return;
      void navigate(to === 0 ? `/study/${pattern}` : `/study/${pattern}/${to}`);
    },
    [navigate, pattern, steps.length],
  );
  useShortcuts(
    useMemo(
      () => [
        { key: " ", label: "Next step", run: () => go(stepInAddress() + 1) },
        { key: "ArrowRight", label: "Next step", run: () => go(stepInAddress() + 1) },
        { key: "ArrowLeft", label: "Step before", run: () => go(stepInAddress() - 1) },
        { key: "Home", label: "The finished paper", run: () => go(0) },
      ],
      [go],
    ),
  );
  if (study.error) {
    return (
      <Main title="No such study" className="p-6">
        <Caution title="This study cannot be shown">{study.error.message}</Caution>
        <p className="mt-4">
          <Link to="/" className="underline">
            Go to the shelf
          </Link>
        </p>
      </Main>
    );
  }
  if (!study.data)
    return (
      <main id="main" aria-busy="true" className="p-6 text-quiet">
        <h1 className="text-lg">Folding …</h1>
      </main>
    );
  return (
    <Main title={study.data.replay.title} className="flex grow flex-col">
      <Strip study={study.data} pattern={pattern} step={step} />
      {step === 0 ? (
        <Finished study={study.data} go={go} />
      ) : (
        <OneStep study={study.data} step={step} go={go} />
      )}
    </Main>
  );
}

function Strip({ study, pattern, step }: { study: StudyData; pattern: string; step: number }) {
  const plain = usePlainPaper();
  const stop = (to: number, label: string, picture: StudyData["replay"]["start"]) => (
    <Link
      key={to}
      to={to === 0 ? `/study/${pattern}` : `/study/${pattern}/${to}`}
      aria-current={to === step ? "step" : undefined}
      aria-label={to === 0 ? "The finished paper" : `Step ${to}`}
      className={`flex w-[4.6rem] shrink-0 flex-col items-center px-1 pt-1 ${to === step ? "bg-panel" : "hover:bg-ground"}`}
    >
      <span className="flex h-14 w-full items-center justify-center lg:h-16">
        <PaperPicture thin picture={picture} colours={plain} label="" className="h-full w-full" />
      </span>
      <span className="title text-sm">{label}</span>
      <span
        className={`mt-auto block w-full ${to === step ? "h-2 bg-ink" : "h-1 bg-line"}`}
        aria-hidden="true"
      />
    </Link>
  );
  const steps = study.replay.steps;
  const last = steps[steps.length - 1]?.after ?? study.replay.start;
  return (
    <nav
      aria-label="Trail"
      className="relative flex h-[6.2rem] shrink-0 overflow-x-auto border-b border-line bg-trail px-2 lg:h-28 lg:px-5"
    >
      {steps.map((s) => stop(s.no, String(s.no), s.after))}
      {stop(0, "finished", last)}
    </nav>
  );
}

function OneStep({ study, step, go }: { study: StudyData; step: number; go: (to: number) => void }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const [round, setRound] = useState(false);
  const steps = study.replay.steps;
  const s = steps[step - 1];
  if (!s) return null;
  const before = s.before ?? (step === 1 ? study.replay.start : steps[step - 2]?.after);
  const error = study.spread?.steps.find((e) => e.step === step);
  const cautions = study.warnings.filter((w) => w.step === step);
  return (
    <div className="grid grow lg:grid-cols-[1fr_23.25rem]">
      <h1 className="sr-only">
        {study.replay.title}, step {step}
      </h1>
      <section className="grid content-start gap-4 p-4 sm:grid-cols-2 sm:p-6">
        <figure>
          <figcaption className="title flex items-center justify-between text-lg">
            <span>Do this</span>
            <Check checked={round} onChange={setRound} className="font-text text-sm font-normal">
              in the round
            </Check>
          </figcaption>
          {round && (
            <InTheRound
              key={step}
              pattern={study.replay.pattern}
              setup={{ sheet: study.replay.sheet, knobs: study.replay.knobs }}
              step={step}
              className="h-[22rem] w-full lg:h-[34rem]"
            />
          )}
          {!round && before && (
            <PaperPicture
              picture={before}
              next={s.next}
              colours={plain}
              label={s.describe}
              className="h-[22rem] w-full lg:h-[30rem]"
            />
          )}
        </figure>
        <figure>
          <figcaption className="title text-lg">It becomes this</figcaption>
          <PaperPicture
            picture={s.round ?? s.after}
            showCentre
            colours={plain}
            label={`After step ${step}`}
            className="h-[22rem] w-full lg:h-[30rem]"
          />
          <p className="text-sm text-quiet">
            {length(s.width_mm, units)} × {length(s.height_mm, units)}, {layersOf(s.max_layers)} at the
            thickest. ◕ is the centre of mass.
          </p>
        </figure>
      </section>
      <section
        aria-label="What to do"
        className="flex flex-col gap-4 border-l border-line bg-panel p-5 max-lg:order-first"
      >
        <p className="text-quiet">
          Step {step} of {steps.length}, {s.title}
        </p>
        <StepWords step={s} />
        {s.looks && (
          <p>
            <b>It looks right when</b> {s.looks}.
          </p>
        )}
        {s.guards.map((g) => (
          <p key={g}>
            <b>In this order:</b> {g}.
          </p>
        ))}
        {error && error.per_mm > 0 && (
          <p>
            <span className="figure text-3xl">{number(error.per_mm)} ×</span>{" "}
            <span className="text-sm text-quiet">
              the error made here, at {error.worst}: {error.class}. Predicted, {Math.round(100 * error.share)}{" "}
              % of the whole spread.
              {error.gap_mm > 0 && ` Leave ${smallLength(error.gap_mm, units)} for the layers inside.`}
            </span>
          </p>
        )}
        {cautions.map((w) => (
          <Caution still key={w.text} title="Caution">
            {w.text}.
          </Caution>
        ))}
        <p className="font-mono text-sm break-words text-quiet">{s.text}</p>
        <div className="mt-auto flex gap-3">
          <Button className="grow" onClick={() => go(step - 1)}>
            ← Back
          </Button>
          <Button weight="main" className="grow" onClick={() => go(step < steps.length ? step + 1 : 0)}>
            {step < steps.length ? "Next →" : "Finished →"}
          </Button>
        </div>
      </section>
    </div>
  );
}

function Finished({ study, go }: { study: StudyData; go: (to: number) => void }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const [look, setLook] = useState<Look>("flat");
  const steps = study.replay.steps;
  const last = steps[steps.length - 1];
  const flat = last?.after ?? study.replay.start;
  const pocket = study.pockets[0];
  const round = study.replay.toy?.round;
  return (
    <div className="grid grow lg:grid-cols-[1fr_23.25rem]">
      <section className="flex flex-col p-4 sm:p-6">
        <h1 className="text-3xl">{study.replay.title}</h1>
        {study.replay.error && <Caution title="It cannot be folded">{study.replay.error.detail}.</Caution>}
        <div role="group" aria-label="On the mat" className="mt-3 flex flex-wrap">
          {(Object.keys(looks) as Look[])
            .filter((l) => (l !== "pocket" || pocket) && (l !== "round" || round))
            .map((l) => (
              <button
                key={l}
                type="button"
                aria-pressed={look === l}
                onClick={() => setLook(l)}
                className={`min-h-11 border-2 border-ink px-3 ${look === l ? "bg-ink text-panel" : "bg-panel"} -ml-0.5 first:ml-0`}
              >
                {looks[l]}
              </button>
            ))}
        </div>
        <PaperPicture
          picture={look === "map" ? study.map.picture : look === "round" && round ? round : flat}
          next={
            look === "map"
              ? study.map.over
              : look === "hidden"
                ? study.xray
                : look === "pocket"
                  ? pocket?.over
                  : undefined
          }
          layers={look === "layers" ? last?.layers : undefined}
          colours={plain}
          label={`${study.replay.title}, ${looks[look].toLowerCase()}`}
          className="mt-4 h-[22rem] w-full grow lg:h-[30rem]"
        />
        <p className="text-sm text-quiet">
          {look === "map" &&
            "The flat sheet with every crease: dashes are valleys, dash-dots mountains, dots creases that lie open."}
          {look === "hidden" && "Dotted: folds and edges that lie under other layers."}
          {look === "pocket" &&
            pocket &&
            `A tuck of ${length(pocket.depth_mm, units)} fits here; the thick line is the mouth, ${length(pocket.width_mm, units)} wide, with ${pocket.cover} layers over it.`}
          {look === "round" &&
            "As it stands after its last bends, from in front and above. Layers have no thickness here."}
          {look === "layers" && "The darker, the more layers lie on each other."}
          {look === "flat" &&
            `Of what shows, ${area(study.above.front_mm2, units)} are the front and ${area(study.above.back_mm2, units)} the back; from behind ${area(study.behind.front_mm2, units)} and ${area(study.behind.back_mm2, units)}.`}
        </p>
      </section>
      <section
        aria-label="What small errors do"
        className="flex flex-col gap-4 border-l border-line bg-panel p-5"
      >
        {study.spread?.steps.some((e) => e.share > 0) && (
          <Errors spread={study.spread} steps={steps} go={go} />
        )}
        {!study.spread && <p>No study of errors: not every step can be made.</p>}
        {study.ratio.length === 2 && (
          <p className="text-sm">{ratioWords(study.ratio[0] ?? 0, study.ratio[1] ?? 0)}</p>
        )}
        {study.warnings.length > 0 && (
          <Caution still title="Caution">
            {study.warnings.map((w) => (
              <span key={w.text} className="block">
                Step {w.step}: {w.text}.
              </span>
            ))}
          </Caution>
        )}
        <Button weight="main" className="mt-auto" onClick={() => go(1)}>
          Step by step →
        </Button>
      </section>
    </div>
  );
}

/** Which sheets fold, in words. */
function ratioWords(low: number, high: number): string {
  const [a, b] = [low.toFixed(2), high.toFixed(2)];
  return a === b
    ? `Folds only on sheets ${a} times as high as wide, found by trying.`
    : `Folds on sheets from ${a} to ${b} times as high as wide, found by trying.`;
}

function Errors({
  spread,
  steps,
  go,
}: {
  spread: NonNullable<StudyData["spread"]>;
  steps: StudyData["replay"]["steps"];
  go: (to: number) => void;
}) {
  const units = useUnits();
  const rows = [...spread.steps].filter((e) => e.share > 0).sort((a, b) => b.share - a.share);
  const worst = rows[0];
  return (
    <>
      <h2 className="text-2xl">What small errors do</h2>
      {worst && (
        <p>
          <Figure value={String(Math.round(100 * worst.share))} unit="% of the spread" />{" "}
          <b>comes from step {worst.step}.</b>
          <span className="block text-sm text-quiet">
            Predicted: {spread.samples} toys folded by an {spread.hand}’s hand, each crease off by{" "}
            {smallLength(spread.sigma_mm, units)} (standard deviation). The centre of mass then scatters by{" "}
            {smallLength(Math.hypot(...(spread.com_mm as [number, number])), units)}
            {spread.pairs > 0 && `, left and right differ by ${smallLength(spread.lopsided_mm, units)}`}.
          </span>
        </p>
      )}
      <table className="w-full text-sm">
        <caption className="sr-only">
          Share of each step in the spread, how many times its error the worst landmark moves, and its class
        </caption>
        <thead>
          <tr className="text-left">
            <th scope="col">Step</th>
            <th scope="col">Share</th>
            <th scope="col" className="px-2">
              Moves
            </th>
            <th scope="col">Class</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, 8).map((e) => (
            <tr key={e.step} className="border-t border-line">
              <td>
                <button type="button" className="min-h-8 text-left underline" onClick={() => go(e.step)}>
                  {e.step} {steps[e.step - 1]?.title}
                </button>
              </td>
              <td>
                <span
                  className="inline-block h-3 border border-dotted border-lavender bg-lavender/50"
                  style={{ width: `${Math.max(2, 36 * e.share)}px` }}
                  aria-hidden="true"
                />{" "}
                {Math.round(100 * e.share)} %
              </td>
              <td className="px-2 whitespace-nowrap">{number(e.per_mm)} ×</td>
              <td>{e.class}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-quiet">
        Moves: how far the worst landmark ends up off, as a multiple of the error made at the step.
      </p>
      {spread.tight && (
        <Caution still title="Tight">
          The layers bind by {smallLength(spread.tight_mm, units)} on this paper: leave the gaps that the
          steps name.
        </Caution>
      )}
    </>
  );
}
