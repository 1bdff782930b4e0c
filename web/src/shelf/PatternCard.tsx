import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Link } from "react-router";
import type { AtHand, Moving, Pattern } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { sheetSize } from "../units";

const Loop = lazy(async () => ({ default: (await import("./Loop")).Loop }));

/** A pattern: how it looks, how it moves, how hard it is, which sheet it wants. */
export function PatternCard({
  pattern: p,
  way,
  best,
  atHand,
  place,
  turn,
  done,
}: {
  pattern: Pattern;
  way: Moving;
  /** The one to begin with. */
  best: boolean;
  atHand: AtHand | undefined;
  place: number;
  turn: number;
  done: (i: number) => void;
}) {
  const plain = usePlainPaper();
  const units = useUnits();
  const preview = useQuery({ ...question.preview(p.id), enabled: turn >= place });
  const { isFetched } = preview;
  useEffect(() => {
    if (isFetched) done(place);
  }, [isFetched, done, place]);
  const family = [
    ...(p.easier ? [{ ...p.easier, how: "easier" }] : []),
    ...(p.harder ? [{ ...p.harder, how: "harder" }] : []),
  ];
  return (
    <li id={p.id} className="flex min-w-0 flex-col border border-line bg-panel p-3">
      <div className="flex gap-3">
        <div className="flex w-28 shrink-0 items-center min-[22rem]:w-32 justify-center self-start bg-ground p-1 sm:w-36">
          {p.picture && (
            <PaperPicture
              picture={p.picture}
              colours={plain}
              label={`${p.title}, finished`}
              className="h-28 w-full"
            />
          )}
        </div>
        <div className="min-w-0">
          <h3 className="text-2xl">{p.title}</h3>
          <p>
            {p.good}. {p.show ? way.words.for_show : way.words.made}
          </p>
          {preview.data && (
            <Suspense>
              <Loop preview={preview.data} title={p.title} />
            </Suspense>
          )}
        </div>
      </div>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3 text-sm">
        <dt className="text-quiet">Difficulty</dt>
        <dd>
          <b>{p.level}</b>: {p.why}
        </dd>
        <dt className="text-quiet">Time</dt>
        <dd>
          about {p.minutes} minutes{p.needs.length > 0 && `; needs ${p.needs.join(" and ")}`}
        </dd>
        <dt className="text-quiet">Sheet</dt>
        <dd>
          {p.size && `${p.size}, `}
          {sheetSize(p.width_mm, p.height_mm, units)}
        </dd>
        {atHand && (
          <>
            <dt className="text-quiet">At hand</dt>
            <dd>
              {atHand.paper}
              {atHand.cut
                ? `, cut to ${sheetSize(atHand.width_mm, atHand.height_mm, units)}`
                : atHand.turned
                  ? ", turned a quarter"
                  : ", as it is"}
              {atHand.verdict !== "good" && ` (${atHand.verdict} paper for it)`}
            </dd>
          </>
        )}
        {(family.length > 0 || p.adapts) && (
          <>
            <dt className="text-quiet">Family</dt>
            <dd>
              {p.family}
              {family.map((f) => (
                <span key={f.id}>
                  ; {f.how}:{" "}
                  <a href={`#${f.id}`} className="inline-block py-0.5 underline">
                    {f.title}
                  </a>
                </span>
              ))}
              {p.adapts && `; made after ${p.adapts.title}`}
            </dd>
          </>
        )}
        {p.add_ons.length > 0 && (
          <>
            <dt className="text-quiet">Goes with</dt>
            <dd>
              {p.add_ons.map((a) => (
                <Link key={a.id} to={`/study/${a.id}`} className="mr-2 inline-block py-0.5 underline">
                  {a.title}
                </Link>
              ))}
            </dd>
          </>
        )}
        {p.credit && (
          <>
            <dt className="text-quiet">By</dt>
            <dd>{p.credit}</dd>
          </>
        )}
      </dl>
      <Link
        to={`/start/${p.id}`}
        className={`mt-3 inline-flex min-h-11 items-center self-start border-2 px-4 font-semibold ${best ? "border-on-mark bg-buoy text-on-mark" : "border-ink bg-panel text-ink hover:bg-ground"}`}
      >
        Fold {/^[AEIOU]/.test(p.title) ? "an" : "a"} {p.title}
      </Link>
    </li>
  );
}
