import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../../api/client";
import { useShortcuts } from "../../keys";
import { Button } from "../../parts/controls";
import { Main } from "../../parts/Main";
import { PaperPicture } from "../../parts/PaperPicture";
import { inBrief } from "../../parts/briefly";
import { useSettings, useUnits } from "../../settings";
import { costOfSlip, smallLength } from "../../units";
import { CareNote } from "./CareNote";
import { useCare, useLook, useSeeing, seen } from "../frame/folding";
import { Legend } from "./Legend";
import { Others } from "./Others";
import { Placements } from "./Placement";
import { SeeingChoice } from "./SeeingChoice";
import { Guards, Halfway, Magnifier, Optional, OtherSide, StepPicture, ZoomNote } from "./StepPicture";
import { LooksDifferent, OffItsPlace } from "./WentWrong";
import { StepAid } from "./StepAid";
import { useReached } from "./useReached";
import { useWakeLock } from "./useWakeLock";
import type { Ready } from "../frame/useBench";

/** How far a finger must go for a swipe, in pixels. */
const swipePX = 50;

/** One step, full screen: for the table, with paper in hand. */
export function Follow({ ready, step }: { ready: Ready; step: number }) {
  const { build, good, bench } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [see] = useSeeing();
  const left = useSettings().settings.hand === "left";
  const [panel, setPanel] = useState<"" | "different" | "more" | "behind">("");
  const [off, setOff] = useState(false);
  const [since, setSince] = useState<number | null>(null);
  const awake = useWakeLock();
  const last = good.steps.length;
  const s = good.steps[step - 1];
  const care = useCare(ready)[step - 1];
  const look = useLook(ready, step, see.xray);
  const made = useMemo(() => good.steps.filter((x) => x.made).map((x) => x.no), [good.steps]);
  const { show } = bench;
  const go = useCallback(
    (by: number) => {
      setPanel("");
      setOff(false);
      let to = step + by;
      while (to > 1 && to <= last && made.includes(to)) to += by;
      if (to > last) {
        void api.keepStep(build.id, last).then(show);
        void navigate(`/bench/${build.id}/set`);
      } else {
        void navigate(`/bench/${build.id}/follow/${Math.max(1, to)}`);
      }
    },
    [step, last, made, build.id, show, navigate],
  );
  useShortcuts(
    useMemo(
      () => [
        { key: " ", label: "Next step", run: () => go(1) },
        { key: "ArrowRight", label: "Next step", run: () => go(1) },
        { key: "ArrowLeft", label: "Step before", run: () => go(-1) },
        {
          key: "d",
          label: "Mine looks different",
          run: () => setPanel((p) => (p === "different" ? "" : "different")),
        },
        {
          key: "Escape",
          label: "Leave the full screen",
          run: () => void navigate(`/bench/${build.id}/fold/${step}`),
        },
      ],
      [go, navigate, build.id, step],
    ),
  );
  useReached(ready, step);
  const from = useRef<{ x: number; y: number } | null>(null);
  const down = (e: PointerEvent) => (from.current = { x: e.clientX, y: e.clientY });
  const up = (e: PointerEvent<HTMLElement>) => {
    const start = from.current;
    from.current = null;
    if (!start) return;
    const [dx, dy] = [e.clientX - start.x, e.clientY - start.y];
    if (Math.abs(dx) > swipePX && Math.abs(dx) > 2 * Math.abs(dy)) {
      go(dx < 0 ? 1 : -1);
      return;
    }
    if (Math.hypot(dx, dy) > 10) return;
    // Tap zones: the half at the folding hand goes on, the quarter across goes back.
    const box = e.currentTarget.getBoundingClientRect();
    const across = (e.clientX - box.left) / box.width;
    const at = left ? 1 - across : across;
    if (at < 0.25) go(-1);
    else if (at > 0.5) go(1);
  };
  if (!s) return null;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const peek = good.steps[step];
  const speak = () => {
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(s.say));
  };
  return (
    <Main
      title={`${build.name}: Follow, step ${step} of ${last}`}
      at="follow"
      className="fixed inset-0 z-30 flex flex-col bg-ground"
      aria-label={`Follow, step ${step}`}
    >
      <div
        className={`flex shrink-0 items-center gap-3 border-b border-line bg-panel px-3 py-1 ${left ? "flex-row-reverse" : ""}`}
      >
        <h1 className="grow text-xl">
          {step} <span className="text-quiet">of {last}</span> <span className="text-base">{s.title}</span>
        </h1>
        <Others build={build.id} step={step} way="follow" />
        {since !== null && <Elapsed since={since} />}
        <Button
          weight="bare"
          aria-expanded={panel === "more"}
          onClick={() => setPanel(panel === "more" ? "" : "more")}
        >
          More
        </Button>
        <Link
          className="flex min-h-11 items-center font-semibold underline underline-offset-4"
          to={`/bench/${build.id}/fold/${step}`}
        >
          Leave
        </Link>
      </div>
      <div className={`flex min-h-0 grow flex-col ${left ? "short:flex-row-reverse" : "short:flex-row"}`}>
        {panel === "different" ? (
          <div className="grow overflow-auto p-4">
            <LooksDifferent ready={ready} step={step} />
            <div className="mt-4">
              {off ? (
                <OffItsPlace ready={ready} step={step} onClose={() => setOff(false)} />
              ) : (
                <Button onClick={() => setOff(true)}>I folded it off its place</Button>
              )}
            </div>
          </div>
        ) : panel === "more" ? (
          <div className="grow space-y-4 overflow-auto p-4">
            <SeeingChoice />
            <section aria-label="What the signs mean">
              <h2 className="text-xl">Signs in this picture</h2>
              <Legend next={s.next} />
            </section>
            <Placements key={step} ready={ready} step={step} />
            {care && <CareNote care={care} />}
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => setSince(since === null ? Date.now() : null)}>
                {since === null ? "Show a timer" : "Hide the timer"}
              </Button>
              {"speechSynthesis" in window && <Button onClick={speak}>Read the step aloud</Button>}
            </div>
            {awake && <p className="text-sm text-quiet">{awake}</p>}
          </div>
        ) : (
          <div
            className={`flex min-h-0 grow touch-pan-y flex-col items-stretch select-none ${left ? "sm:flex-row-reverse" : "sm:flex-row"}`}
            onPointerDown={down}
            onPointerUp={up}
          >
            <div className="flex min-h-0 min-w-0 grow basis-0 flex-col">
              {panel === "behind" ? (
                <OtherSide ready={ready} step={step} className="min-h-0 w-full grow basis-0" />
              ) : (
                <StepPicture
                  ready={ready}
                  step={step}
                  look={look}
                  hold={care?.hold}
                  className="min-h-0 w-full grow basis-0"
                />
              )}
              <div className="px-2 max-sm:hidden short:hidden">
                <Legend next={s.next} />
                <ZoomNote ready={ready} step={step} />
              </div>
            </div>
            <div
              className={`flex shrink-0 gap-2 overflow-hidden p-2 sm:w-44 sm:flex-col short:hidden ${left ? "" : "justify-end"}`}
            >
              <Halfway ready={ready} step={step} className="w-24 sm:w-full" />
              <Magnifier ready={ready} step={step} className="w-24 sm:w-full" />
              <figure className="w-24 border border-line bg-panel p-1 sm:w-full" aria-hidden="true">
                <PaperPicture
                  thin
                  picture={s.round ?? s.after}
                  transform={s.round ? undefined : seen({ ...see, turn: "drawn" }, 0)}
                  colours={colours}
                  label=""
                  className="h-20 w-full sm:h-28"
                />
                <figcaption className="text-center text-xs">becomes</figcaption>
              </figure>
              {peek && (
                <figure
                  className="w-24 overflow-hidden border border-line bg-panel sm:w-full"
                  aria-hidden="true"
                >
                  <StepPicture ready={ready} step={step + 1} className="h-20 w-full sm:h-28" />
                  <figcaption className="text-center text-xs">then: {peek.title}</figcaption>
                </figure>
              )}
            </div>
          </div>
        )}
        <div
          className="max-h-[45dvh] shrink-0 overflow-y-auto border-t border-line bg-panel px-3 pt-3 short:max-h-none short:w-1/2 short:border-x"
          role="region"
          aria-label="What to do"
          tabIndex={0}
        >
          <div className="mx-auto flex max-w-3xl flex-col gap-2">
            <p
              aria-live="polite"
              className="border-2 border-on-mark bg-buoy px-3 py-2 text-[1.35rem] leading-snug font-bold text-on-mark short:text-lg"
            >
              {s.made && "Already there: "}
              {see.brief ? inBrief(s) : s.say || s.text}
              {s.gap &&
                s.gap.verdict !== "touch" &&
                s.gap_mm === 0 &&
                ` ${s.gap.verdict === "leave" ? "Leave" : "Overlap"} ${smallLength(s.gap.mm, units)}.`}
            </p>
            {s.cautions.map((c) => (
              <p key={c.id} className="bg-caution px-2 py-1 text-on-mark">
                <b>{c.title}.</b> {c.text}
              </p>
            ))}
            <Guards guards={s.guards} />
            <Optional ready={ready} step={step} />
            {s.looks && (
              <p>
                <b>Before you go on:</b> it looks right when {s.looks}.
              </p>
            )}
            {s.aid && panel === "" && (
              <details>
                <summary className="min-h-11 py-2 font-semibold">{s.aid.title}</summary>
                <StepAid key={`aid ${step}`} aid={s.aid} build={build.id} />
              </details>
            )}
            {care && care.per_mm > 1 && panel === "" && (
              <p className="text-sm">
                {care.class === "critical" && <b>Take care. </b>}
                {costOfSlip(care.per_mm, care.worst, units)}.
              </p>
            )}
          </div>
        </div>
      </div>
      <div className="shrink-0 bg-panel p-3">
        <div
          className={`mx-auto flex max-w-3xl gap-2 max-sm:flex-col ${left ? "sm:flex-row-reverse" : ""}`}
          data-ways=""
        >
          <div className={`flex gap-2 sm:grow ${left ? "flex-row-reverse" : ""}`}>
            <Button
              className="grow"
              aria-pressed={panel === "behind"}
              onClick={() => setPanel(panel === "behind" ? "" : "behind")}
            >
              Other side
            </Button>
            <Button
              className="grow"
              aria-pressed={panel === "different"}
              onClick={() => setPanel(panel === "different" ? "" : "different")}
            >
              Mine looks different
            </Button>
          </div>
          <div className={`flex gap-2 sm:grow-2 ${left ? "flex-row-reverse" : ""}`}>
            <Button className="grow" disabled={step === 1} onClick={() => go(-1)}>
              {left ? "Back" : "← Back"}
            </Button>
            <Button weight="main" className="grow-3 text-lg" onClick={() => go(1)}>
              {peek ? (left ? "Next" : "Next →") : "Done"}
            </Button>
          </div>
        </div>
      </div>
    </Main>
  );
}

function Elapsed({ since }: { since: number }) {
  const [now, setNow] = useState(since);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const s = Math.max(0, Math.floor((now - since) / 1000));
  return (
    <p className="tabular-nums" role="timer">
      {Math.floor(s / 60)}:{String(s % 60).padStart(2, "0")}
    </p>
  );
}
