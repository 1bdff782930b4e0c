import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { type Clinic, type Remedy, type Setup } from "../../api/client";
import { question } from "../../api/queries";
import { useShortcuts } from "../../keys";
import { drawerOf, viewsOf } from "../../motions";
import { Button, Caution, Choice, DoNow, Figure } from "../../parts/controls";
import { useUnits } from "../../settings";
import { knobValue, number, outcomeRange, outcomeValue, recordValue } from "../../units";
import { useConditions } from "../../parts/conditions";
import { Conditions } from "../../parts/Conditions";
import { Disagrees } from "../../parts/Disagrees";
import { BendPicture } from "./BendPicture";
import { EffectBars } from "./EffectBars";
import { KeepOrRevert } from "./KeepOrRevert";
import { MatHead } from "../frame/MatHead";
import { Schools } from "./Schools";
import { Search } from "./Search";
import { Sizes } from "./Sizes";
import { Mat, MovedDraft, Slip, WayOn } from "../frame/Slip";
import { Sweeps } from "./Sweeps";
import { onTable, type Ready } from "../frame/useBench";
import { usePrediction } from "../frame/usePrediction";

/** The views that every way of moving has; its own come behind. */
const common = [
  { value: "bars", label: "What matters" },
  { value: "sweep", label: "Over the range" },
  { value: "search", label: "Search" },
  { value: "sizes", label: "Sizes" },
];

/** What the trials say, what to change next and by how much. */
export function TuneStretch({ ready }: { ready: Ready }) {
  const { build, setup, bench, way } = ready;
  const navigate = useNavigate();
  const [how] = useConditions(way);
  const [search, setSearch] = useSearchParams();
  const views = useMemo(
    () => [
      { value: "motion", label: way.words.motion },
      ...common,
      ...(way.schools.length > 0 ? [{ value: "schools", label: "Two schools" }] : []),
      ...viewsOf(way),
    ],
    [way],
  );
  const view = views.find((v) => v.value === search.get("view"))?.value ?? "motion";
  const setView = useCallback(
    (v: string) => setSearch(v === "motion" ? {} : { view: v }, { replace: true }),
    [setSearch],
  );
  useShortcuts(
    useMemo(
      () => [
        {
          key: "ArrowLeft",
          label: `Back to the ${way.words.many}`,
          run: () => void navigate(`/bench/${build.id}/try`),
        },
        ...views.map((v, i) => ({ key: String(i + 1), label: v.label, run: () => setView(v.value) })),
      ],
      [navigate, build.id, setView, views, way],
    ),
  );
  const latest = onTable(build);
  const clinic = useQuery(question.clinic(build, how));
  const [other, setOther] = useState(0);
  const finding = clinic.data?.finding;
  const remedies = finding?.remedy ? [finding.remedy, ...finding.others] : [];
  const remedy = remedies[Math.min(other, remedies.length - 1)];
  // With a remedy in hand the mat shows what it would do, and what flies now as a ghost.
  const next = useMemo(
    () => (remedy && remedy.changes.length > 0 && latest ? changed(latest.setup, remedy) : setup),
    [remedy, latest, setup],
  );
  const ghosts = latest && next !== setup ? [{ name: `tweak ${latest.no}, now`, setup: latest.setup }] : [];
  const prediction = usePrediction(ready, next, ghosts);
  const p = prediction.data;
  const main = way.kinds[0]?.record ?? "";
  const measured = (latest?.trials ?? []).flatMap((t) => t.read?.[main] ?? []);
  const colours = { front: setup.sheet.front, back: setup.sheet.back };
  const Motion = p ? drawerOf(p).Mat : null;
  const Own = viewsOf(way).find((v) => v.value === view)?.View;
  if (!way.predicts || (p && !p.works)) {
    return (
      <>
        <Mat>
          <MatHead ready={ready} />
          <p className="max-w-prose text-lg">{way.words.unlike} What you note of it is kept at Try.</p>
          {p && Motion && <Motion prediction={p} how={how} colours={colours} name="for fun" />}
        </Mat>
        <Slip label="Slip" className="lg:row-span-2">
          <h2 className="text-2xl">{way.predicts ? "Not as it should be" : "Not predicted yet"}</h2>
          <Conditions way={way} offered={p?.offered} />
        </Slip>
      </>
    );
  }
  return (
    <>
      <Mat className="max-lg:pb-24 lg:max-h-none">
        <MatHead ready={ready} />
        <Choice label="On the mat" quiet value={view} options={views} onChange={setView} />
        <div className="mt-3">
          {view === "motion" &&
            (p && Motion ? (
              <Motion
                prediction={p}
                how={how}
                measured={measured}
                colours={colours}
                name={
                  next === setup
                    ? build.draft
                      ? "draft"
                      : `tweak ${latest?.no ?? 1}`
                    : `tweak ${build.tweaks.length + 1}`
                }
              />
            ) : (
              <p>{prediction.error ? prediction.error.message : way.words.busy}</p>
            ))}
          {view === "bars" && <EffectBars ready={ready} setup={setup} />}
          {view === "sweep" && <Sweeps ready={ready} setup={setup} />}
          {view === "search" && <Search ready={ready} setup={setup} />}
          {view === "sizes" && <Sizes ready={ready} />}
          {view === "schools" && <Schools ready={ready} />}
          {Own && clinic.data && <Own clinic={clinic.data} />}
        </div>
      </Mat>
      <Slip label="Slip" className="max-lg:order-first max-lg:pb-24 lg:row-span-2">
        {clinic.data?.kept && (
          <KeepOrRevert ready={ready} kept={clinic.data.kept} tweak={clinic.data.tweak} />
        )}
        {(clinic.error ?? prediction.error) && (
          <Caution title="Not predicted">{(clinic.error ?? prediction.error)?.message}</Caution>
        )}
        {clinic.isPending && (
          <p className="text-lg text-quiet" role="status" data-waiting="">
            Weighing what you logged…
          </p>
        )}
        {clinic.data && <Disagrees text={clinic.data.disagrees} />}
        {clinic.data && (
          <Diagnosis
            ready={ready}
            clinic={clinic.data}
            remedy={remedy}
            count={remedies.length}
            at={other}
            onOther={() => setOther((other + 1) % Math.max(1, remedies.length))}
            onDone={() => setOther(0)}
          />
        )}
        <MovedDraft ready={ready} />
        <Conditions way={way} offered={p?.offered} />
        <WayOn>
          <Button className="grow" onClick={() => void navigate(`/bench/${build.id}/try`)}>
            ← {way.words.many.charAt(0).toUpperCase() + way.words.many.slice(1)}
          </Button>
          <Button
            className="grow"
            disabled={bench.view?.ok === false}
            onClick={() => void navigate(`/bench/${build.id}/set`)}
          >
            Set it by hand
          </Button>
        </WayOn>
      </Slip>
    </>
  );
}

/** Words in a row. */
function listed(words: string[]): string {
  if (words.length < 2) return words.join("");
  return `${words.slice(0, -1).join(", ")} or ${words.at(-1) ?? ""}`;
}

/** A set-up after a remedy. */
function changed(setup: Setup, remedy: Remedy): Setup {
  const knobs = { ...setup.knobs };
  for (const c of remedy.changes) knobs[c.knob] = c.to;
  return { ...setup, knobs };
}

function Diagnosis({
  ready,
  clinic,
  remedy,
  count,
  at,
  onOther,
  onDone,
}: {
  ready: Ready;
  clinic: Clinic;
  remedy: Remedy | undefined;
  count: number;
  at: number;
  onOther: () => void;
  onDone: () => void;
}) {
  const units = useUnits();
  const navigate = useNavigate();
  const { bench, build, way } = ready;
  const f = clinic.finding;
  const latest = onTable(build);
  if (!remedy) {
    return (
      <div>
        <h2 className="text-2xl">{f.title}</h2>
        <p className="mt-2">
          {f.wants > 0
            ? `Log ${f.wants} more ${f.wants === 1 ? way.words.one : way.words.many} and note what you see. One ${way.words.one} proves nothing.`
            : f.clear
              ? `No fault was seen in most of the ${way.words.many}. ${way.words.better}`
              : way.words.noting}
        </p>
        {!f.clear && (
          <Button className="mt-3" weight="main" onClick={() => void navigate(`/bench/${build.id}/try`)}>
            Log {way.words.many}
          </Button>
        )}
      </div>
    );
  }
  const after = remedy.after;
  const stats = after && latest?.stats[after.id];
  const take = async () => {
    if (!latest) return;
    const next = changed(latest.setup, remedy);
    if (!(await bench.keep(next))) return;
    const b = await bench.settle(`${f.title} ${remedy.do} ${remedy.where}`);
    if (b) onDone();
  };
  return (
    <div className="flex flex-col gap-3" data-finding={f.symptom}>
      <h2 className="text-2xl">{at === 0 ? f.title : `Another way: ${remedy.school}`}</h2>
      <DoNow note={remedy.where}>{remedy.do}</DoNow>
      {after ? (
        <Figure
          value={
            after.unit === "m" && units === "mm"
              ? after.middle.toFixed(1)
              : outcomeValue(after.middle, after, units)
          }
          unit={after.unit === "m" && units === "mm" ? "m predicted" : "predicted"}
        >
          {outcomeRange(after, units)}, {after.mode}. Now{" "}
          {stats && stats.n > 0
            ? `${recordValue(stats.median, after.unit, units)} measured, n = ${stats.n}`
            : remedy.now
              ? `${outcomeValue(remedy.now.middle, remedy.now, units)} predicted`
              : "not measured"}
          .
        </Figure>
      ) : (
        <p className="border-2 border-dotted border-lavender p-3">
          <span className="font-semibold text-lavender">The model is unsure here.</span> This is a test, not a
          verdict.
        </p>
      )}
      {remedy.bend && <BendPicture bend={remedy.bend} way={way} />}
      <p>
        <b>Why</b>: {remedy.why} {remedy.then}
      </p>
      {f.test && at === 0 && (
        <section aria-label="Not told apart" className="border-l-4 border-lavender pl-3">
          <p>
            <b>Not told apart</b>: {listed(f.causes.slice(0, f.tied).map((c) => c.words.toLowerCase()))}.
          </p>
          <p>{f.test}</p>
        </section>
      )}
      <p className="text-quiet">{remedy.against}</p>
      <div className="flex flex-wrap gap-2">
        {remedy.changes.length > 0 && (
          <Button weight="main" onClick={() => void take()}>
            Make it tweak {build.tweaks.length + 1}
          </Button>
        )}
        {count > 1 && (
          <Button onClick={onOther}>{at + 1 < count ? "Try something else" : "Back to the first"}</Button>
        )}
      </div>
      {count > 1 && at === 0 && (
        <p className="text-sm text-quiet">
          Folders disagree: {count} ways are known. Your {way.words.many} decide.
        </p>
      )}
      <details>
        <summary>
          Causes in order, with law and log ({f.confidence}; {f.symptom} in {f.seen} of {f.of})
        </summary>
        <ol className="mt-1 list-inside list-decimal space-y-2">
          {f.causes.map((c) => (
            <li key={c.words}>
              <b>{c.words}</b>, {number(100 * c.weight, 0)} %<span className="block text-sm">{c.law}</span>
              <span className="block text-sm text-quiet">
                {c.log.charAt(0).toUpperCase() + c.log.slice(1)}.
              </span>
            </li>
          ))}
        </ol>
        {remedy.changes.length > 0 && (
          <p className="mt-2 text-sm">
            As knobs:{" "}
            {remedy.changes
              .map(
                (c) => `${c.label} ${knobValue(c.from, c.unit, units)} → ${knobValue(c.to, c.unit, units)}`,
              )
              .join(", ")}
            .
          </p>
        )}
      </details>
    </div>
  );
}
