import { useDeferredValue } from "react";
import { Link, Navigate, useParams } from "react-router";
import { FoldStretch } from "../bench/fold/FoldStretch";
import { PlayToy } from "../bench/play/PlayToy";
import { Follow } from "../bench/fold/Follow";
import { PaperStretch } from "../bench/paper/PaperStretch";
import { SetStretch } from "../bench/set/SetStretch";
import { Trail } from "../bench/frame/Trail";
import { TryStretch } from "../bench/try/TryStretch";
import { TuneStretch } from "../bench/tune/TuneStretch";
import { useSettings } from "../settings";
import { stretches, useBench, type Ready, type Stretch } from "../bench/frame/useBench";
import { Main } from "../parts/Main";
import type { Moving } from "../api/client";

/** One build: trail, mat and slip. The address holds build, stretch and step. */
export function Bench() {
  const { build: id = "", stretch, step } = useParams();
  return <OneBench key={id} id={Number(id)} stretch={stretch} step={Number(step ?? "1")} />;
}

function OneBench({ id, stretch, step }: { id: number; stretch: string | undefined; step: number }) {
  const bench = useBench(id);
  const { settings } = useSettings();
  const { build, pattern, way, setup, good } = bench;
  if (bench.problem && !build) {
    return (
      <Main title="Not on the bench" className="p-8">
        <h1 className="text-3xl">This build is not on the bench.</h1>
        <p className="mt-2">{bench.problem.message}</p>
        <p className="mt-4 flex gap-4">
          <Link to="/" className="underline">
            Go to the shelf
          </Link>
          <Link to="/bin" className="underline">
            Look into the bin
          </Link>
        </p>
      </Main>
    );
  }
  if (!build || !pattern || !way || !setup || !good)
    return <main id="main" className="grow" aria-busy="true" />;
  const ready: Ready = { bench, build, pattern, way, setup, good };
  const at = Math.min(Math.max(1, Number.isInteger(step) ? step : 1), pattern.steps);
  if (stretch === "follow") return <Follow ready={ready} step={at} />;
  if (stretch === "play") return <PlayToy ready={ready} />;
  const known = stretches.find((s) => s === stretch);
  if (!known) {
    const to = build.trials > 0 || build.step >= pattern.steps ? "try" : `fold/${Math.max(1, build.step)}`;
    return <Navigate to={`/bench/${id}/${to}`} replace />;
  }
  return (
    <>
      <Unhurried ready={ready} stretch={known} step={at} />
      <Main
        title={`${build.name}: ${stretchTitle(known, at, pattern.steps, way)}`}
        at={known}
        data-hand={settings.hand}
        className="group grid grow content-start lg:grid-cols-[minmax(0,1fr)_23.25rem] lg:grid-rows-[auto_1fr] lg:content-stretch lg:data-[hand=left]:grid-cols-[23.25rem_minmax(0,1fr)]"
      >
        <Content ready={ready} stretch={known} step={at} />
      </Main>
    </>
  );
}

/** What a stretch is called in the list of windows. */
function stretchTitle(stretch: Stretch, step: number, steps: number, way: Moving): string {
  switch (stretch) {
    case "paper":
      return "Paper";
    case "fold":
      return `Fold, step ${step} of ${steps}`;
    case "set":
      return "Set";
    case "try":
      return `Try, ${way.words.many}`;
    case "tune":
      return "Tune";
  }
}

/** The trail follows after the mat has been painted. */
function Unhurried({ ready, stretch, step }: { ready: Ready; stretch: Stretch; step: number }) {
  return <Trail ready={useDeferredValue(ready)} stretch={stretch} step={step} />;
}

function Content({ ready, stretch, step }: { ready: Ready; stretch: Stretch; step: number }) {
  switch (stretch) {
    case "paper":
      return <PaperStretch ready={ready} />;
    case "fold":
      return <FoldStretch ready={ready} step={step} />;
    case "set":
      return <SetStretch ready={ready} />;
    case "try":
      return <TryStretch ready={ready} />;
    case "tune":
      return <TuneStretch ready={ready} />;
  }
}
