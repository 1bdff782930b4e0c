import { useCallback, useDeferredValue, useMemo, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { useNavigate, useSearchParams } from "react-router";
import { question } from "../../api/queries";
import type { Knob, Moving, Prediction } from "../../api/client";
import { useShortcuts } from "../../keys";
import { drawerOf } from "../../motions";
import { Button, Caution, Choice, Figure } from "../../parts/controls";
import { Disagrees } from "../../parts/Disagrees";
import { PaperPicture } from "../../parts/PaperPicture";
import { useUnits } from "../../settings";
import {
  layersOf,
  length,
  number,
  outcomeRange,
  outcomeValue,
  readingUnit,
  readingValue,
  sheetSize,
  thickness,
} from "../../units";
import { CautionsAt } from "../frame/CautionsAt";
import { Checks } from "./Checks";
import { useConditions } from "../../parts/conditions";
import { Conditions } from "../../parts/Conditions";
import { MatHead } from "../frame/MatHead";
import { Measured } from "./Measured";
import { Readings } from "./Readings";
import { WriteMat } from "../write/WriteMat";
import { DraftBox, Impossible, Knobs, Mat, Slip, WayOn } from "../frame/Slip";
import type { Ready } from "../frame/useBench";
import { useGhosts } from "./useGhosts";
import { useMeasured } from "./useMeasured";
import { usePrediction } from "../frame/usePrediction";

const looks = ["round", "motion", "write", "flat", "layers"] as const;
type Look = (typeof looks)[number];

/** The finished toy: last bends, knobs, balance. */
export function SetStretch({ ready }: { ready: Ready }) {
  const { build, good, bench, way, setup } = ready;
  const [how] = useConditions(way);
  const units = useUnits();
  const navigate = useNavigate();
  // The address holds what is looked at, so that it can be linked and reloaded.
  const [search, setSearch] = useSearchParams();
  const look: Look = looks.find((l) => l === search.get("look")) ?? "round";
  const setLook = useCallback(
    (l: Look) => setSearch(l === "round" ? {} : { look: l }, { replace: true }),
    [setSearch],
  );
  useShortcuts(
    useMemo(
      () => [
        {
          key: "l",
          label: "Layer map or the toy in the round",
          run: () => setLook(look === "layers" ? "round" : "layers"),
        },
        {
          key: "ArrowRight",
          label: `Go on to the ${way.words.many}`,
          run: () => void navigate(`/bench/${build.id}/try`),
        },
        {
          key: "ArrowLeft",
          label: "Back to the last step",
          run: () => void navigate(`/bench/${build.id}/fold/${good.steps.length}`),
        },
      ],
      [navigate, build.id, good.steps.length, look, setLook, way],
    ),
  );
  // The picture comes first: numbers follow what is on the mat.
  const prediction = usePrediction(
    ready,
    look === "motion" ? setup : { ...setup, sheet: good.sheet, knobs: good.knobs },
    useGhosts(ready),
  );
  const p = prediction.data;
  // A draft has no log: nobody weighs one then.
  const clinic = useQuery({
    ...question.clinic(build, how),
    enabled: !bench.moving && !build.draft && build.trials > 0,
  });
  // The path is painted first, then the list of numbers.
  const readings = useDeferredValue(p?.readings);
  const [first, others] = useMemo(() => parted(ready.pattern.knobs, way), [ready.pattern, way]);
  const [boxOpen, setBoxOpen] = useState(false);
  const { take } = useMeasured(ready);
  const toy = good.toy;
  const last = good.steps.at(-1);
  if (!toy || !last) return null;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const headline = p?.works ? p.readings.find((r) => r.id === way.headline) : undefined;
  const Motion = p ? drawerOf(p).Mat : null;
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        <Choice<Look>
          label="On the mat"
          value={look}
          options={[
            { value: "round", label: "In the round" },
            { value: "motion", label: way.words.motion },
            ...(way.writes ? [{ value: "write" as const, label: "Write" }] : []),
            { value: "flat", label: "Folded flat" },
            { value: "layers", label: "Layers" },
          ]}
          onChange={setLook}
        />
        {look === "write" && way.writes ? (
          <WriteMat ready={ready} />
        ) : look === "motion" ? (
          p && Motion ? (
            <div className="mt-3">
              <Motion
                prediction={p}
                how={how}
                colours={colours}
                name={build.draft ? "draft" : `tweak ${build.at}`}
                of={{ pattern: build.pattern, setup, build: build.id }}
                onWrite={(written) => void bench.keep({ ...setup, written })}
                onMeasured={(m) => void take(m)}
              />
            </div>
          ) : (
            <p>{prediction.error ? prediction.error.message : way.words.busy}</p>
          )
        ) : look === "round" && toy.round && !toy.second ? (
          <PaperPicture
            picture={toy.round}
            colours={colours}
            label="The toy from above"
            className="h-[20rem] w-full lg:h-[26rem]"
          />
        ) : look === "round" && toy.round && toy.second ? (
          <div className="grid min-h-0 grow items-center sm:grid-cols-[3fr_2fr]">
            <PaperPicture
              picture={toy.round}
              colours={colours}
              showCentre
              label="The toy in the round, with its centre of mass"
              className="h-[15rem] w-full sm:h-[20rem]"
            />
            <figure className="flex flex-col justify-center">
              <PaperPicture
                picture={toy.second}
                colours={colours}
                showCentre
                label={`The toy: ${toy.second_title ?? ""}`}
                className="h-[9rem] w-full"
              />
              <figcaption className="text-center text-sm text-quiet">
                {toy.second_title}
                {toy.second_says && `: ${toy.second_says}`}
              </figcaption>
            </figure>
          </div>
        ) : (
          <figure className="flex min-h-0 grow flex-col">
            <PaperPicture
              picture={last.after}
              colours={colours}
              showCentre={look !== "layers"}
              layers={look === "layers" ? last.layers : undefined}
              label={look === "layers" ? `Layer map, up to ${last.max_layers} layers` : "The toy folded flat"}
              className="h-[20rem] w-full lg:h-[26rem]"
            />
            <figcaption className="text-center text-sm text-quiet">
              {look === "layers"
                ? `The number says how many layers lie there; the darker, the more, up to ${last.max_layers}.`
                : "◕ is the centre of mass of the toy folded flat."}
            </figcaption>
          </figure>
        )}
        <div data-measures="">
          {p?.works && <Readings readings={readings ?? p.readings} way={way} />}
          <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 border-t border-line pt-3 sm:grid-cols-4">
            {toy.measures.map((m) => (
              <Measure
                key={m.label}
                name={m.label}
                value={
                  m.unit === "g"
                    ? `${number(m.value, 2)} g`
                    : m.by === undefined
                      ? length(m.value, units)
                      : sheetSize(m.value, m.by, units)
                }
              />
            ))}
            <Measure
              name="Thickest stack"
              value={`${layersOf(toy.max_layers)}, ${thickness(toy.thickest_mm, units)}`}
            />
          </dl>
        </div>
      </Mat>
      <Slip label="Slip" className="max-lg:pb-24">
        <h2 className="text-2xl">Set and balance</h2>
        <Impossible ready={ready} unless={() => true} />
        {headline ? (
          <Figure
            value={readingValue(headline.value, headline.unit, headline.decimals, units)}
            unit={`${readingUnit(headline.unit, units)} ${headline.brief ?? ""}`.trim()}
          >
            {headline.meaning} {headline.says ?? ""}{" "}
            {headline.predicted
              ? `Predicted, ${readingValue(headline.lo, headline.unit, headline.decimals, units)} to ${readingValue(headline.hi, headline.unit, headline.decimals, units)}.`
              : "Computed from every layer, for even paper without thickness."}
          </Figure>
        ) : (
          <Figure value={number(toy.mass_g, 2)} unit="g">
            {layersOf(toy.max_layers)} at the thickest, {thickness(toy.thickest_mm, units)}.
          </Figure>
        )}
        <div data-first-knobs="" className="-mt-2">
          <Knobs brief ready={ready} only={(k) => first.includes(k)} />
        </div>
        {p?.works && <CautionsAt way={way} at="set" />}
        {!p && !prediction.error && way.predicts && (
          <p className="text-lg text-quiet" role="status" data-waiting="">
            {way.words.busy}
          </p>
        )}
        {p?.works && (
          <Brief prediction={p} way={way} shown={look === "motion"} onShow={() => setLook("motion")} />
        )}
        {p?.works && way.plays && (
          <Button onClick={() => void navigate(`/bench/${build.id}/play`)}>Play it on the screen</Button>
        )}
        {way.writes && look !== "write" && (
          <Button onClick={() => setLook("write")}>Write on it and print it</Button>
        )}
        {clinic.data && !build.draft && <Disagrees text={clinic.data.disagrees} />}
        {prediction.error && <Caution title="Not predicted">{prediction.error.message}</Caution>}
        {p && <Checks ready={ready} checks={p.checks} />}
        <Conditions way={way} offered={p?.offered} />
        <DraftBox ready={ready} />
        {p?.works && <Measured ready={ready} />}
        {others.length > 0 && (
          <details
            data-more-knobs=""
            open={boxOpen || others.some((k) => bench.view?.advice.some((a) => a.knob === k.name))}
            onToggle={(e) => setBoxOpen(e.currentTarget.open)}
          >
            <summary className="font-semibold">
              {others.length} more {others.length === 1 ? "knob" : "knobs"}:{" "}
              <span className="font-normal">{others.map((k) => k.label.toLowerCase()).join("; ")}</span>
            </summary>
            {others.some((k) => k.kind === "set") && (
              <>
                <h3 className="mt-3 text-lg">{way.words.last}</h3>
                <p className="text-sm text-quiet">They can be changed on the finished toy.</p>
                <Knobs ready={ready} only={(k) => k.kind === "set" && others.includes(k)} />
              </>
            )}
            {others.some((k) => k.kind === "fold") && (
              <>
                <h3 className="mt-3 text-lg">Folds</h3>
                <p className="text-sm text-quiet">
                  These move a fold, so they need a new sheet once the toy has been tried.
                </p>
                <Knobs ready={ready} only={(k) => k.kind === "fold" && others.includes(k)} />
              </>
            )}
          </details>
        )}
        <WayOn>
          <Button
            className="grow"
            onClick={() => void navigate(`/bench/${build.id}/fold/${good.steps.length}`)}
          >
            ← Back
          </Button>
          <Button
            weight="main"
            className="grow-2"
            disabled={bench.view?.ok === false}
            onClick={() => void navigate(`/bench/${build.id}/try`)}
          >
            {way.words.do} →
          </Button>
        </WayOn>
      </Slip>
    </>
  );
}

/** How many knobs stand first. */
const mostFirst = 3;

/** The knobs that matter: those that a search would move, then other last bends. */
function parted(knobs: Knob[], way: Moving): [Knob[], Knob[]] {
  const rank = (k: Knob) => {
    const i = way.free.indexOf(k.name);
    return (k.kind === "set" ? 0 : 100) + (i < 0 ? 50 : i);
  };
  const dials = knobs.filter((k) => !k.read);
  const order = [...dials].sort((a, b) => rank(a) - rank(b));
  return [order.slice(0, mostFirst), dials.filter((k) => !order.slice(0, mostFirst).includes(k))];
}

function Measure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className="title text-lg">{value}</dd>
    </div>
  );
}

/** What it is predicted to do in one line, and the way to see it. */
function Brief({
  prediction,
  way,
  shown,
  onShow,
}: {
  prediction: Prediction;
  way: Moving;
  shown: boolean;
  onShow: () => void;
}) {
  const units = useUnits();
  const [main, ...others] = prediction.outcomes;
  if (!main) return null;
  return (
    <section
      aria-label={`Predicted ${way.words.motion.toLowerCase()}`}
      className="border-2 border-dotted border-lavender p-3"
    >
      <p className="text-sm font-semibold text-lavender">predicted: {prediction.mode}</p>
      <p>
        <span className="figure text-4xl">{outcomeValue(main.middle, main, units)}</span>
        {main.unit === "" && <span className="title ml-2 text-lg">{main.label.toLowerCase()}</span>}
      </p>
      <p className="text-sm text-quiet">
        {main.lo !== main.hi && `${outcomeRange(main, units)}, `}
        {others[0] &&
          `${others[0].label.toLowerCase()} ${outcomeValue(others[0].middle, others[0], units)}. `}
        {prediction.mode_words}
      </p>
      {!shown && (
        <Button className="mt-2" onClick={onShow}>
          Show the {way.words.motion.toLowerCase()}
        </Button>
      )}
    </section>
  );
}
