import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { type Knob } from "../../api/client";
import { question } from "../../api/queries";
import { Button, Caution, Field } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { useUnits } from "../../settings";
import { changeWords, knobValue, length } from "../../units";
import { KnobDial } from "./KnobDial";
import type { Ready } from "./useBench";

/** The paper itself, big. It stays in sight while the slip scrolls. */
export function Mat({ children, className = "" }: { children: ReactNode; className?: string }) {
  return (
    <section
      aria-label="Mat"
      className={`flex min-w-0 flex-col p-4 lg:sticky lg:top-0 lg:col-start-1 lg:row-span-2 lg:row-start-1 lg:max-h-dvh lg:min-h-[calc(100dvh-9.8rem)] lg:self-start lg:p-6 lg:group-data-[hand=left]:col-start-2 ${className}`}
    >
      {children}
    </section>
  );
}

/** The narrow sheet beside the mat: what to do or decide now. */
export function Slip({
  label,
  children,
  className = "",
}: {
  label: string;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section
      aria-label={label}
      className={`flex min-w-0 flex-col gap-4 border-line bg-panel p-5 lg:col-start-2 lg:border-l lg:group-data-[hand=left]:col-start-1 lg:group-data-[hand=left]:border-r lg:group-data-[hand=left]:border-l-0 ${className}`}
    >
      {children}
    </section>
  );
}

/** Back and on: always within reach of the thumb. */
export function WayOn({ children }: { children: ReactNode }) {
  return (
    <div
      data-ways=""
      className="flex gap-3 border-t border-line bg-panel px-5 py-3 max-lg:group-data-[hand=left]:flex-row-reverse max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-10 lg:sticky lg:bottom-0 lg:-mx-5 lg:mt-auto lg:-mb-5"
    >
      {children}
    </div>
  );
}

/** Whether a fold is impossible because of one of these knobs. */
function isCulprit(ready: Ready, of: (k: Knob) => boolean): boolean {
  const { bench, pattern } = ready;
  return pattern.knobs.some((k) => of(k) && bench.view?.advice.some((a) => a.knob === k.name));
}

/**
 * Says which step cannot be made, why, and what would work. It stands at the knob
 * that causes it, where the eyes are; elsewhere only when no such knob is shown.
 */
export function Impossible({ ready, unless }: { ready: Ready; unless?: (k: Knob) => boolean }) {
  const units = useUnits();
  const { bench, setup } = ready;
  const { view } = bench;
  if (!view || view.ok || !view.error) return null;
  if (unless && isCulprit(ready, unless)) return null;
  const apply = (next: typeof setup) => {
    void bench.keep(next);
  };
  return (
    <Caution
      title={view.error.step > 0 ? `Step ${view.error.step} cannot be folded` : "This sheet will not do"}
    >
      <p className="mt-1">{sentence(view.error.detail)}</p>
      {view.error.over && (
        <PaperPicture
          picture={view.steps[view.steps.length - 1]?.after ?? view.start}
          next={view.error.over}
          colours={{ front: view.sheet.front, back: view.sheet.back }}
          label="The layers that it is about, on the last good state"
          className="mt-2 h-40 w-full"
        />
      )}
      {view.advice.map((a) => (
        <div key={a.label} className="mt-2">
          {a.all ? (
            <p>No single knob is to blame.</p>
          ) : (
            <p className="font-semibold">
              {a.label}: works from {a.knob ? knobValue(a.min, a.unit, units) : length(a.min, units)} to{" "}
              {a.knob ? knobValue(a.max, a.unit, units) : length(a.max, units)}.
            </p>
          )}
          {a.knob && (
            <Button
              className="mt-1"
              onClick={() => apply({ ...setup, knobs: { ...setup.knobs, [a.knob]: a.fix } })}
            >
              Set it to {knobValue(a.fix, a.unit, units)}
            </Button>
          )}
        </div>
      ))}
      <Button className="mt-2" onClick={() => void bench.putBack()}>
        Put back what was before
      </Button>
      <p className="mt-2 text-sm">The mat still shows the last set-up that works.</p>
    </Caution>
  );
}

const sentence = (s: string) => {
  const t = s.charAt(0).toUpperCase() + s.slice(1);
  return t.endsWith(".") ? t : `${t}.`;
};

/** Knobs that act on the set-up being tried out. */
export function Knobs({
  ready,
  only,
  brief,
}: {
  ready: Ready;
  only?: (k: Knob) => boolean;
  brief?: boolean;
}) {
  const { bench, build, pattern, setup } = ready;
  const knobs = pattern.knobs.filter((k) => !k.read && (!only || only(k)));
  const reach = useQuery({
    ...question.reach(pattern, build.setup),
    enabled: !bench.moving && knobs.some((k) => !k.implied),
  });
  // The dials keep their handlers, which reach for what holds when they are moved.
  const latest = useRef({ bench, setup });
  useEffect(() => {
    latest.current = { bench, setup };
  });
  const moved = useCallback((name: string, v: number) => {
    const now = latest.current.setup;
    return { ...now, knobs: { ...now.knobs, [name]: v } };
  }, []);
  const onTry = useCallback(
    (name: string, v: number) => latest.current.bench.tryOut(moved(name, v)),
    [moved],
  );
  // A dial that is stepped by keys is kept when it rests for a moment.
  const resting = useRef<{ timer: number; keep: () => void } | null>(null);
  const rest = useCallback(() => {
    if (!resting.current) return;
    clearTimeout(resting.current.timer);
    const { keep } = resting.current;
    resting.current = null;
    keep();
  }, []);
  useEffect(() => rest, [rest]);
  const onKeep = useCallback(
    (name: string, v: number, now: boolean) => {
      if (resting.current) clearTimeout(resting.current.timer);
      const keep = () => void latest.current.bench.keep(moved(name, v));
      if (now) {
        resting.current = null;
        keep();
        return;
      }
      resting.current = { keep, timer: window.setTimeout(rest, 250) };
    },
    [moved, rest],
  );
  return (
    <div>
      {knobs.map((k) => (
        <div key={k.name}>
          <KnobDial
            knob={k}
            value={setup.knobs[k.name] ?? k.default}
            reach={reach.data?.find((r) => r.knob === k.name)}
            brief={brief}
            onTry={onTry}
            onKeep={onKeep}
          />
          {isCulprit(ready, (c) => c === k) && <Impossible ready={ready} />}
        </div>
      ))}
    </div>
  );
}

/** The draft, on stretches where an untouched one needs no words. */
export function MovedDraft({ ready }: { ready: Ready }) {
  return ready.build.tweaks.length > 0 || ready.build.changes.length > 0 ? <DraftBox ready={ready} /> : null;
}

/** What becomes of moved knobs: a tweak, a child build, or nothing. */
export function DraftBox({ ready }: { ready: Ready }) {
  const units = useUnits();
  const navigate = useNavigate();
  const { bench, build, way } = ready;
  const [why, setWhy] = useState("");
  if (!build.draft) return null;
  const next = build.tweaks.length + 1;
  const child = async () => {
    const b = await bench.child();
    if (b) {
      void navigate(`/bench/${b.id}/fold/1`);
    }
  };
  const settle = async () => {
    const b = await bench.settle(why);
    if (b) setWhy("");
  };
  return (
    <div className="border-2 border-ink p-3">
      <p className="title text-lg">Draft</p>
      {build.changes.length > 0 ? (
        <ul className="mt-1 list-inside list-disc">
          {build.changes.map((c) => (
            <li key={c.knob}>{changeWords(c, units)}</li>
          ))}
        </ul>
      ) : (
        <p className="mt-1">As the pattern has it.</p>
      )}
      {build.trials > 0 && build.changes.length > 1 && !build.needs_child && (
        <p className="mt-1 border-l-4 border-caution pl-2">
          {build.changes.length === 2 ? "Two things" : "Several things"} at once: you will not know which of
          them did it.
        </p>
      )}
      {build.needs_child ? (
        <>
          <p className="mt-2 text-sm text-quiet">
            This toy has been tried already. Another sheet or another hard fold is another toy, so its{" "}
            {way.words.many} are kept apart.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button weight="main" onClick={() => void child()}>
              Fold it anew as a child build
            </Button>
            <Button onClick={() => void bench.putBack()}>Put back</Button>
          </div>
        </>
      ) : (
        <>
          {build.tweaks.length === 0 && (
            <p className="mt-1 text-sm text-quiet">The first {way.words.one} makes this tweak 1 by itself.</p>
          )}
          <Field
            className="mt-2"
            label="Why (may stay empty)"
            value={why}
            maxLength={500}
            onChange={(e) => setWhy(e.target.value)}
          />
          <div className="mt-2 flex flex-wrap gap-2">
            <Button weight="main" onClick={() => void settle()}>
              Make it tweak {next}
            </Button>
            {build.changes.length > 0 && <Button onClick={() => void bench.putBack()}>Put back</Button>}
          </div>
        </>
      )}
    </div>
  );
}
