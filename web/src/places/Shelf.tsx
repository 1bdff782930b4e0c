import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { useMoves } from "../parts/useMoves";
import { api, type BuildCard, type Moving, type Pattern, type StudyCard } from "../api/client";
import { question, changed } from "../api/queries";
import { usePlainPaper } from "../paper";
import { Caution } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { offerUndo } from "../undo";
import { recordValue, sheetSize } from "../units";
import { Main } from "../parts/Main";

/** The start: builds on the bench, and the patterns there are. */
export function Shelf() {
  const patterns = useQuery(question.patterns());
  const studies = useQuery(question.studies());
  const builds = useQuery(question.builds());
  const problem = patterns.error ?? builds.error;
  const ways = useMoves()?.filter((w) => patterns.data?.some((p) => p.moves === w.name));
  return (
    <Main title="Shelf" className="mx-auto w-full max-w-[80rem] grow p-4 sm:p-6">
      {problem && <Caution title="The shelf cannot be shown">{problem.message}</Caution>}
      <h1 className="text-3xl">On the bench</h1>
      {builds.data?.length === 0 && (
        <p className="mt-2 max-w-prose text-lg">
          Nothing yet. Choose a pattern below, say which sheet you have, and fold along.
        </p>
      )}
      <ul className="mt-3 grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
        {builds.data?.map((b) => (
          <OnBench key={b.id} build={b} />
        ))}
      </ul>
      {ways?.map((w) => (
        <section key={w.name} className="mt-8" aria-labelledby={`way-${w.name}`}>
          <h2 id={`way-${w.name}`} className="border-b-2 border-ink pb-1 text-3xl">
            {w.words.title}
          </h2>
          <ul className="mt-4 grid gap-5 lg:grid-cols-2">
            {patterns.data
              ?.filter((p) => p.moves === w.name)
              .map((p) => (
                <Card key={p.id} pattern={p} way={w} />
              ))}
          </ul>
        </section>
      ))}
      {studies.data && studies.data.length > 0 && (
        <section className="mt-8" aria-labelledby="studies">
          <h2 id="studies" className="border-b-2 border-ink pb-1 text-3xl">
            Bases and single folds, to look at
          </h2>
          <ul className="mt-4 grid grid-cols-2 gap-3 sm:grid-cols-3 lg:grid-cols-6">
            {studies.data.map((s) => (
              <StudyLink key={s.id} study={s} />
            ))}
          </ul>
        </section>
      )}
    </Main>
  );
}

function StudyLink({ study: s }: { study: StudyCard }) {
  const plain = usePlainPaper();
  return (
    <li className="border border-line bg-panel">
      <Link to={`/study/${s.id}`} className="flex h-full flex-col p-3 hover:bg-ground">
        {s.picture && (
          <PaperPicture thin picture={s.picture} colours={plain} label="" className="h-24 w-full" />
        )}
        <span className="title mt-2 block">{s.title}</span>
        <span className="block text-sm text-quiet">
          {s.steps} {s.steps === 1 ? "step" : "steps"}
        </span>
      </Link>
    </li>
  );
}

function OnBench({ build: b }: { build: BuildCard }) {
  const units = useUnits();
  const queries = useQueryClient();
  const refresh = () => changed.builds(queries);
  const bin = async () => {
    await api.binBuild(b.id);
    await refresh();
    offerUndo(`${b.name} is in the bin`, { do: "restore build", id: b.id });
  };
  const d = b.stats;
  const way = useMoves()?.find((w) => w.name === b.moves);
  const unit = way?.records.find((r) => r.id === b.record)?.unit;
  return (
    <li className="flex border border-line bg-panel">
      <Link to={`/bench/${b.id}`} className="flex min-w-0 grow items-center gap-3 p-3 hover:bg-ground">
        {b.picture && (
          <PaperPicture
            thin
            picture={b.picture}
            colours={{ front: b.sheet.front, back: b.sheet.back }}
            label=""
            className="h-20 w-24 shrink-0"
          />
        )}
        <span className="min-w-0">
          <span className="title block text-xl">{b.name}</span>
          <span className="block text-sm text-quiet">
            {b.title}, {b.size || sheetSize(b.sheet.width_mm, b.sheet.height_mm, units)}
            {b.parent_id ? ", child build" : ""}
          </span>
          {d.n > 0 ? (
            <span className="mt-1 block">
              <span className="figure text-3xl text-tide">{recordValue(d.median, unit ?? "", units)}</span>{" "}
              <span className="text-sm text-quiet">
                <span className="whitespace-nowrap">median of {d.n}</span>,{" "}
                <span className="whitespace-nowrap">best {recordValue(d.best, unit ?? "", units)}</span>
              </span>
            </span>
          ) : (
            <span className="mt-1 block text-quiet">
              {b.step === 0
                ? "not begun"
                : b.step < b.steps
                  ? `folded to step ${b.step} of ${b.steps}`
                  : way?.words.untried}
            </span>
          )}
        </span>
      </Link>
      <button
        type="button"
        className="border-l border-line px-3 text-sm text-quiet hover:bg-ground"
        aria-label={`Put ${b.name} into the bin`}
        onClick={() => void bin()}
      >
        Bin
      </button>
    </li>
  );
}

function Card({ pattern: p, way }: { pattern: Pattern; way: Moving }) {
  const plain = usePlainPaper();
  const units = useUnits();
  return (
    <li className="border border-line bg-panel">
      <Link to={`/start/${p.id}`} className="flex h-full flex-col sm:flex-row">
        <div className="flex shrink-0 items-center justify-center bg-ground p-2 sm:w-64">
          {p.picture && (
            <PaperPicture
              picture={p.picture}
              colours={plain}
              label={`${p.title}, finished`}
              className="h-44 w-full"
            />
          )}
        </div>
        <div className="flex grow flex-col p-4">
          <h3 className="text-3xl">{p.title}</h3>
          <p className="mt-1 text-lg">
            {p.good}. {p.show ? way.words.for_show : way.words.made}
          </p>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 text-sm">
            <dt className="text-quiet">Sheet</dt>
            <dd>
              {p.size && `${p.size}, `}
              {sheetSize(p.width_mm, p.height_mm, units)}
            </dd>
            <dt className="text-quiet">Steps</dt>
            <dd>
              {p.steps}, about {p.minutes} minutes
            </dd>
            <dt className="text-quiet">Thickest stack</dt>
            <dd>{p.thickest} layers</dd>
          </dl>
          <span className="mt-4 self-start border-2 border-on-mark bg-buoy px-4 py-2 font-semibold text-on-mark">
            Fold {/^[AEIOU]/.test(p.title) ? "an" : "a"} {p.title}
          </span>
        </div>
      </Link>
    </li>
  );
}
