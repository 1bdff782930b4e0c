import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { question } from "../api/queries";
import { Caution, Field } from "../parts/controls";
import { Main } from "../parts/Main";
import { useMoves } from "../parts/useMoves";
import { OnBench } from "../shelf/OnBench";
import { PatternCard } from "../shelf/PatternCard";
import { useInTurn } from "../shelf/useInTurn";
import { useWish } from "../shelf/useWish";

// The cards come with the page; what narrows them down follows.
const Studies = lazy(async () => ({ default: (await import("../shelf/Studies")).Studies }));
const Filters = lazy(async () => ({ default: (await import("../shelf/Filters")).Filters }));

const folded = "tussock-bench-folded";

/** The start: builds on the bench beside the patterns that there are. */
export function Shelf() {
  const patterns = useQuery(question.patterns());
  const studies = useQuery(question.studies());
  const builds = useQuery(question.builds());
  const wish = useWish();
  const sift = useQuery(question.sift(wish.wish));
  const papers = useQuery(question.papers()).data;
  const [asked, ask] = useInTurn();
  const sheets = useQuery({
    ...question.bestSheets(papers?.length ?? 0),
    enabled: asked >= 0 && !!papers,
  }).data;
  const [previews, previewed] = useInTurn();
  const [name, setName] = useState("");
  const moves = useMoves() ?? [];
  // Toys of several ways may move by one word, and then lie under it.
  const ways = moves.filter(
    (w, i) =>
      moves.findIndex((v) => v.moves === w.moves) === i && patterns.data?.some((p) => p.moves === w.moves),
  );
  const problem = patterns.error ?? builds.error;
  const has = (...words: string[]) => words.some((w) => w.toLowerCase().includes(name.trim().toLowerCase()));
  const sifted = sift.data;
  // The easiest first; until that is known, as they stand on the shelf.
  const rank = (id: string) => sifted?.kept.indexOf(id) ?? 0;
  const kept = ways
    .flatMap((w) =>
      (patterns.data ?? []).filter((p) => p.moves === w.moves).sort((a, b) => rank(a.id) - rank(b.id)),
    )
    .filter((p) => (!sifted || sifted.kept.includes(p.id)) && has(p.title, p.good, p.family));
  const best = kept.find((p) => p.id === sifted?.best)?.id ?? kept[0]?.id;
  const bench = builds.data?.filter((b) => has(b.name, b.title)) ?? [];
  const addOns = studies.data?.filter((s) => s.goes_to.length > 0) ?? [];
  const bases = studies.data?.filter((s) => s.goes_to.length === 0) ?? [];
  return (
    <Main title="Shelf" className="mx-auto w-full max-w-[96rem] grow lg:grid lg:grid-cols-[21rem_1fr]">
      <h1 className="sr-only">Shelf</h1>
      <div className="p-4 lg:sticky lg:top-0 lg:max-h-dvh lg:overflow-y-auto lg:border-r lg:border-line">
        <Field
          label="Find a build or a pattern"
          type="search"
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
        />
        <Fold count={builds.data?.length}>
          {builds.isPending && (
            <p className="mt-2 text-quiet" role="status" data-waiting="">
              Looking what lies there…
            </p>
          )}
          {builds.data?.length === 0 ? (
            <p className="mt-2 max-w-prose">
              Nothing yet. Choose a pattern, say which sheet you have, and fold along.
            </p>
          ) : (
            <ul className="mt-2 grid gap-2">
              {bench.map((b, i) => (
                <OnBench key={b.id} build={b} place={i} turn={asked} done={ask} />
              ))}
              {builds.data && bench.length === 0 && <li>No build has that name.</li>}
            </ul>
          )}
        </Fold>
      </div>
      <div className="min-w-0 p-4 lg:p-5">
        {problem && <Caution title="The shelf cannot be shown">{problem.message}</Caution>}
        <Suspense fallback={<div className="min-h-12 lg:min-h-[12.3rem]" />}>
          <Filters wish={wish} sifted={sifted} problem={sift.error?.message} ways={ways} />
        </Suspense>
        {ways.map((w) => {
          const here = kept.filter((p) => p.moves === w.moves);
          if (here.length === 0) return null;
          return (
            <section key={w.name} className="mt-5" aria-labelledby={`way-${w.name}`}>
              <h2 id={`way-${w.name}`} className="border-b-2 border-ink pb-1 text-2xl">
                {w.words.title}
              </h2>
              <ul className="mt-3 grid gap-3 md:grid-cols-2 2xl:grid-cols-3">
                {here.map((p) => (
                  <PatternCard
                    key={p.id}
                    pattern={p}
                    way={moves.find((v) => v.name === p.way) ?? w}
                    best={p.id === best}
                    atHand={sheets?.find((s) => s.pattern === p.id)}
                    place={kept.indexOf(p)}
                    turn={previews}
                    done={previewed}
                  />
                ))}
              </ul>
            </section>
          );
        })}
        {patterns.data && kept.length === 0 && (
          <p className="mt-5 text-lg">No pattern does. Take a filter back, or look under another name.</p>
        )}
        <Suspense>
          {addOns.length > 0 && !name && !wish.asked && (
            <Studies id="add-ons" title="To go with them" list={addOns} />
          )}
          {bases.length > 0 && !name && !wish.asked && (
            <Studies id="studies" title="Bases and single folds, to look at" list={bases} />
          )}
        </Suspense>
      </div>
    </Main>
  );
}

/** The bench, which folds away and stays so on this device. */
function Fold({ count, children }: { count: number | undefined; children: React.ReactNode }) {
  const wide = window.matchMedia("(min-width: 64rem)").matches;
  const [open, setOpen] = useState(() => {
    try {
      return (localStorage.getItem(folded) ?? (wide ? "open" : "folded")) === "open";
    } catch {
      return wide;
    }
  });
  useEffect(() => {
    try {
      localStorage.setItem(folded, open ? "open" : "folded");
    } catch {
      // A browser that keeps nothing begins afresh next time.
    }
  }, [open]);
  return (
    <details open={open || count === 0} onToggle={(e) => setOpen(e.currentTarget.open)} className="mt-3">
      <summary className="min-h-9">
        <h2 className="inline text-2xl">On the bench</h2>{" "}
        {count !== undefined && count > 0 && <span className="text-quiet">{count}</span>}
      </summary>
      {children}
    </details>
  );
}
