import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, type Clinic, type Remedy, type Setup } from "../api/client";
import { useShortcuts } from "../keys";
import { Button, Choice, DoNow, Figure } from "../parts/controls";
import { useUnits } from "../settings";
import { distance, knobValue, number } from "../units";
import { EffectBars } from "./EffectBars";
import { FlightMat } from "./FlightMat";
import { KeepOrRevert } from "./KeepOrRevert";
import { MatHead } from "./MatHead";
import { Search } from "./Search";
import { Mat, MovedDraft, Slip, WayOn } from "./Slip";
import { Sweeps } from "./Sweeps";
import { ThrowControls } from "./ThrowControls";
import { useThrowing } from "./throwing";
import { TurnCauses } from "./TurnCauses";
import type { Ready } from "./useBench";
import { useFlight } from "./useFlight";

const views = ["flight", "bars", "sweep", "search", "turn"] as const;
type View = (typeof views)[number];

/** What the throws say, what to change next and by how much. */
export function TuneStretch({ ready }: { ready: Ready }) {
  const { build, setup, bench, good } = ready;
  const navigate = useNavigate();
  const [how] = useThrowing();
  const [search, setSearch] = useSearchParams();
  const view: View = views.find((v) => v === search.get("view")) ?? "flight";
  const setView = useCallback(
    (v: View) => setSearch(v === "flight" ? {} : { view: v }, { replace: true }),
    [setSearch],
  );
  useShortcuts(
    useMemo(
      () => [
        { key: "ArrowLeft", label: "Back to the throws", run: () => void navigate(`/bench/${build.id}/try`) },
        { key: "1", label: "The flight", run: () => setView("flight") },
        { key: "2", label: "What matters", run: () => setView("bars") },
        { key: "3", label: "One knob over its range", run: () => setView("sweep") },
        { key: "4", label: "Search for an aim", run: () => setView("search") },
        { key: "5", label: "Left against right", run: () => setView("turn") },
      ],
      [navigate, build.id, setView],
    ),
  );
  const latest = build.tweaks.at(-1);
  const clinic = useQuery({
    queryKey: ["clinic", build.id, build.updated_at, build.trials, how],
    queryFn: () => api.clinic(build.id, how),
    retry: false,
  });
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
  const flight = useFlight(ready, next, ghosts);
  const measured = (latest?.trials ?? []).flatMap((t) => (t.distance_m === undefined ? [] : [t.distance_m]));
  if (!good.toy?.glider && ready.pattern.moves !== "fly") {
    return (
      <>
        <Mat>
          <MatHead ready={ready} />
          <p className="max-w-prose text-lg">
            How this toy moves is not predicted yet; only flying is. What you note of it is kept at Try.
          </p>
          {flight.data && <FlightMat flight={flight.data} name="thrown, for fun" />}
        </Mat>
        <Slip label="Slip" className="lg:row-span-2">
          <h2 className="text-2xl">Thrown like a glider</h2>
          <p>It has no wings that are set, so it is taken as the flat plate that it is folded.</p>
          <ThrowControls />
        </Slip>
      </>
    );
  }
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        <Choice<View>
          label="On the mat"
          quiet
          value={view}
          options={[
            { value: "flight", label: "Flight" },
            { value: "bars", label: "What matters" },
            { value: "sweep", label: "Over the range" },
            { value: "search", label: "Search" },
            { value: "turn", label: "Left and right" },
          ]}
          onChange={setView}
        />
        <div className="mt-3">
          {view === "flight" &&
            (flight.data ? (
              <FlightMat
                flight={flight.data}
                measured={measured}
                name={
                  next === setup
                    ? build.draft
                      ? "draft"
                      : `tweak ${latest?.no ?? 1}`
                    : `tweak ${(latest?.no ?? 0) + 1}`
                }
              />
            ) : (
              <p>{flight.error ? flight.error.message : "Throwing it…"}</p>
            ))}
          {view === "bars" && <EffectBars ready={ready} setup={setup} />}
          {view === "sweep" && <Sweeps ready={ready} setup={setup} />}
          {view === "search" && <Search ready={ready} setup={setup} />}
          {view === "turn" && clinic.data && <TurnCauses clinic={clinic.data} />}
        </div>
      </Mat>
      <Slip label="Slip" className="max-lg:order-first max-lg:pb-24 lg:row-span-2">
        {clinic.data?.kept && (
          <KeepOrRevert ready={ready} kept={clinic.data.kept} tweak={clinic.data.tweak} />
        )}
        {clinic.error && <p>{clinic.error.message}</p>}
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
        <ThrowControls />
        <WayOn>
          <Button className="grow" onClick={() => void navigate(`/bench/${build.id}/try`)}>
            ← Throws
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
  const { bench, build } = ready;
  const f = clinic.finding;
  const latest = build.tweaks.at(-1);
  const stats = latest?.distance;
  if (!remedy) {
    return (
      <div>
        <h2 className="text-2xl">{f.title}</h2>
        <p className="mt-2">
          {f.wants > 0
            ? `Log ${f.wants} more ${f.wants === 1 ? "throw" : "throws"} and note what you see. One throw proves nothing.`
            : f.title === "Nothing to cure"
              ? "No fault was seen in most of the throws. To make it go farther or stay up longer, search for an aim on the mat."
              : "Tap what the throw did when you log it: dived, stalled, turned left…"}
        </p>
        {f.wants === 0 && f.title === "Nothing to cure" ? null : (
          <Button className="mt-3" weight="main" onClick={() => void navigate(`/bench/${build.id}/try`)}>
            Log throws
          </Button>
        )}
      </div>
    );
  }
  const take = async () => {
    if (!latest) return;
    const next = changed(latest.setup, remedy);
    bench.tryOut(next);
    await bench.keep(next);
    const b = await bench.change(
      api.makeTweak(build.id, `${f.title} ${remedy.do} ${remedy.where}`.slice(0, 500)),
    );
    if (b) onDone();
  };
  return (
    <div className="flex flex-col gap-3" data-finding={f.symptom}>
      <h2 className="text-2xl">{at === 0 ? f.title : `Another way: ${remedy.school}`}</h2>
      <DoNow note={remedy.where}>{remedy.do}</DoNow>
      {remedy.after ? (
        <Figure
          value={units === "mm" ? remedy.after.middle_m.toFixed(1) : distance(remedy.after.middle_m, units)}
          unit={units === "mm" ? "m predicted" : "predicted"}
        >
          {distance(remedy.after.lo_m, units)} to {distance(remedy.after.hi_m, units)}, {remedy.after.mode}.
          Now{" "}
          {stats && stats.n > 0
            ? `${distance(stats.median, units)} measured, n = ${stats.n}`
            : remedy.now
              ? `${distance(remedy.now.middle_m, units)} predicted`
              : "not measured"}
          .
        </Figure>
      ) : (
        <p className="border-2 border-dotted border-lavender p-3">
          <span className="font-semibold text-lavender">The model is unsure here.</span> This is a test throw,
          not a verdict.
        </p>
      )}
      <p>
        <b>Why</b>: {remedy.why} {remedy.then}
      </p>
      <p className="text-quiet">{remedy.against}</p>
      <div className="flex flex-wrap gap-2">
        {remedy.changes.length > 0 && (
          <Button weight="main" onClick={() => void take()}>
            Make it tweak {(latest?.no ?? 0) + 1}
          </Button>
        )}
        {count > 1 && (
          <Button onClick={onOther}>{at + 1 < count ? "Try something else" : "Back to the first"}</Button>
        )}
      </div>
      {count > 1 && at === 0 && (
        <p className="text-sm text-quiet">Folders disagree: {count} ways are known. Your throws decide.</p>
      )}
      <details>
        <summary>
          Causes in order, with law and log ({f.confidence}; {f.symptom} in {f.seen} of {f.of})
        </summary>
        <ol className="mt-1 list-inside list-decimal space-y-2">
          {f.causes.map((c) => (
            <li key={c.words}>
              <b>{c.words}</b>, {number(100 * c.weight, 0)} %<span className="block text-sm">{c.law}</span>
              <span className="block text-sm text-quiet">{c.log}.</span>
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
