import { memo, useEffect, useMemo, useRef, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import type { Build, Care } from "../../api/client";
import { useShortcuts } from "../../keys";
import { PaperPicture } from "../../parts/PaperPicture";
import { useCare } from "./folding";
import type { Ready, Stretch } from "./useBench";

/**
 * The whole work as one strip of small pictures: timeline and way to everywhere. It rests
 * while a knob moves, until what is folded has changed.
 */
export const Trail = memo(
  Strip,
  (a, b) =>
    a.ready.good === b.ready.good &&
    sameBuild(a.ready.build, b.ready.build) &&
    a.ready.pattern === b.ready.pattern &&
    a.stretch === b.stretch &&
    a.step === b.step,
);

/** Alike in all that the strip shows of a build. */
const sameBuild = (a: Build, b: Build) =>
  a === b ||
  (a.id === b.id &&
    a.step === b.step &&
    a.trials === b.trials &&
    a.draft === b.draft &&
    a.at === b.at &&
    a.tweaks.length === b.tweaks.length);

function Strip({ ready, stretch, step }: { ready: Ready; stretch: Stretch; step: number }) {
  const { build, good, pattern } = ready;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const base = `/bench/${build.id}`;
  const strip = useRef<HTMLElement>(null);
  const navigate = useNavigate();
  useEffect(() => {
    const now = strip.current?.querySelector<HTMLElement>("[aria-current]");
    // Only the strip scrolls; scrollIntoView would move the page as well.
    if (now && strip.current) {
      strip.current.scrollLeft = now.offsetLeft - strip.current.clientWidth / 2 + now.clientWidth / 2;
    }
  }, [stretch, step]);
  useShortcuts(
    useMemo(
      () => [
        { key: "p", label: "Paper: choose another sheet", run: () => void navigate(`${base}/paper`) },
        { key: "f", label: "Fold: the steps", run: () => void navigate(`${base}/fold/${step}`) },
        { key: "b", label: "Set: last bends and balance", run: () => void navigate(`${base}/set`) },
        { key: "t", label: `Try: log ${ready.way.words.many}`, run: () => void navigate(`${base}/try`) },
        { key: "n", label: "Tune: what to change next", run: () => void navigate(`${base}/tune`) },
      ],
      [navigate, base, step, ready.way],
    ),
  );
  const stop = (
    to: string,
    current: boolean,
    done: boolean,
    label: string,
    heat: number,
    caption: ReactNode,
    picture: ReactNode,
  ) => (
    <Link
      key={to}
      to={to}
      aria-current={current ? "step" : undefined}
      aria-label={label + (done ? ", done" : "")}
      className={`flex w-[4.6rem] shrink-0 flex-col items-center px-1 pt-1 ${current ? "bg-panel" : "hover:bg-ground"}`}
    >
      <span className="flex h-14 w-full items-center justify-center lg:h-16">{picture}</span>
      <span className="flex w-full items-end justify-center gap-1">
        <span className="title text-sm whitespace-nowrap">{caption}</span>
        {heat > 0 && (
          <span
            className="mb-0.5 block h-4 w-1.5 border border-ink"
            aria-hidden="true"
            title="how thick it is"
          >
            <span
              className="block w-full bg-ink"
              style={{ height: `${100 * heat}%`, marginTop: `${13 * (1 - heat)}px` }}
            />
          </span>
        )}
      </span>
      <span
        className={`mt-auto block w-full ${current ? "h-2 bg-ink" : done ? "h-1 bg-tide" : "h-1 bg-line"}`}
        aria-hidden="true"
      />
    </Link>
  );
  const care = useCare(ready);
  const thickest = Math.max(1, ...good.steps.map((s) => s.max_layers));
  const setName = build.draft ? "draft" : build.at > 0 ? `tweak ${build.at}` : "set";
  const toy = good.toy && (good.toy.round ?? good.steps.at(-1)?.after);
  return (
    <nav
      ref={strip}
      aria-label="Trail"
      className="relative flex h-[6.2rem] shrink-0 overflow-x-auto border-b border-line bg-trail px-2 lg:h-28 lg:px-5"
    >
      <Label>Paper</Label>
      {stop(
        `${base}/paper`,
        stretch === "paper",
        true,
        "Paper, the sheet",
        0,
        "sheet",
        <PaperPicture thin picture={good.start} colours={colours} label="" className="h-full w-full" />,
      )}
      <Label>Fold</Label>
      {good.steps.map((s) =>
        stop(
          `${base}/fold/${s.no}`,
          stretch === "fold" && step === s.no,
          build.step >= s.no || s.made,
          `Step ${s.no}${s.made ? " made, its crease is there" : ""}${markWords(care[s.no - 1], s.optional)}`,
          s.max_layers / thickest,
          <>
            {s.made ? `${s.no} made` : s.no}
            <Marks care={care[s.no - 1]} optional={s.optional} />
          </>,
          <PaperPicture thin picture={s.after} colours={colours} label="" className="h-full w-full" />,
        ),
      )}
      <Label>Set</Label>
      {stop(
        `${base}/set`,
        stretch === "set",
        build.step >= pattern.steps,
        `Set, ${setName}`,
        0,
        setName,
        toy && <PaperPicture thin picture={toy} colours={colours} label="" className="h-full w-full" />,
      )}
      <Label>Try</Label>
      {stop(
        `${base}/try`,
        stretch === "try",
        build.trials > 0,
        `Try, ${build.trials} ${ready.way.words.many}`,
        0,
        build.trials,
        <Dots n={Math.min(build.trials, 5)} />,
      )}
      <Label>Tune</Label>
      {stop(
        `${base}/tune`,
        stretch === "tune",
        build.tweaks.length > 1,
        "Tune, what to change next",
        0,
        "next",
        <Bars />,
      )}
      <Signs
        all={[
          ...new Set(
            good.steps.flatMap((s) => signs(care[s.no - 1], s.optional).map(([t, w]) => `${t} ${w}`)),
          ),
        ]}
      />
    </nav>
  );
}

/** What a step needs, in signs: each has its word beside it for those who cannot see. */
function signs(c: Care | undefined, optional: boolean): [string, string][] {
  const all: [string, string][] = [];
  if (c?.class === "critical" || c?.author === "critical") all.push(["!", "take care"]);
  if (c?.soft) all.push(["~", "soft crease"]);
  if (c?.cuts) all.push(["✂", "a cut"]);
  if (c?.fixes) all.push(["+", "glue or tape"]);
  if (optional) all.push(["( )", "may be left out"]);
  return all;
}

const markWords = (c: Care | undefined, optional: boolean) =>
  signs(c, optional)
    .map(([, w]) => `, ${w}`)
    .join("");

function Marks({ care, optional }: { care: Care | undefined; optional: boolean }) {
  return signs(care, optional).map(([sign, words]) => (
    <span key={sign} aria-hidden="true" title={words}>
      {" "}
      {sign}
    </span>
  ));
}

/** What the signs beside the numbers mean, those that occur. */
function Signs({ all }: { all: string[] }) {
  return (
    <ul className="flex shrink-0 flex-col justify-center px-3 text-xs text-quiet" aria-hidden="true">
      {all.map((s) => (
        <li key={s}>{s}</li>
      ))}
      <li>▮ how thick</li>
    </ul>
  );
}

function Label({ children }: { children: string }) {
  return (
    <span
      className="title flex shrink-0 items-center justify-center px-1 text-sm [writing-mode:vertical-rl]"
      style={{ transform: "rotate(180deg)" }}
    >
      {children}
    </span>
  );
}

function Dots({ n }: { n: number }) {
  return (
    <svg viewBox="0 0 60 30" className="h-8 w-14" aria-hidden="true">
      <path d="M2 20H58" stroke="var(--ink)" strokeWidth="1.5" />
      {Array.from({ length: n }, (_, i) => (
        <circle key={i} cx={30 + 5.5 * i} cy="20" r="3.5" fill="var(--tide)" />
      ))}
    </svg>
  );
}

function Bars() {
  return (
    <svg viewBox="0 0 60 40" className="h-9 w-14" aria-hidden="true">
      <path d="M4 36H56" stroke="var(--ink)" strokeWidth="1.5" />
      {[28, 18, 9].map((h, i) => (
        <rect key={h} x={10 + 15 * i} y={36 - h} width="9" height={h} fill="var(--tide)" />
      ))}
    </svg>
  );
}
