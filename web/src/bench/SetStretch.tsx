import { useCallback, useDeferredValue, useMemo } from "react";
import { useNavigate, useSearchParams } from "react-router";
import type { Flight } from "../api/client";
import { useShortcuts } from "../keys";
import { Button, Choice, Figure } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { distance, length, lengthValue, number, sheetSize, thickness } from "../units";
import { FlightMat } from "./FlightMat";
import { MatHead } from "./MatHead";
import { MeasuredBends, PencilCaution } from "./MeasuredBends";
import { Readings } from "./Readings";
import { DraftBox, Impossible, Knobs, Mat, Slip, WayOn } from "./Slip";
import { ThrowControls } from "./ThrowControls";
import type { Ready } from "./useBench";
import { useFlight } from "./useFlight";
import { useGhosts } from "./useGhosts";

const looks = ["round", "flight", "flat", "layers"] as const;
type Look = (typeof looks)[number];

/** The finished toy: last bends, knobs, balance. */
export function SetStretch({ ready }: { ready: Ready }) {
  const { build, good, bench, pattern, setup } = ready;
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
          label: "Go on to the throws",
          run: () => void navigate(`/bench/${build.id}/try`),
        },
        {
          key: "ArrowLeft",
          label: "Back to the last step",
          run: () => void navigate(`/bench/${build.id}/fold/${good.steps.length}`),
        },
      ],
      [navigate, build.id, good.steps.length, look, setLook],
    ),
  );
  // The picture comes first: numbers follow what is on the mat.
  const flight = useFlight(
    ready,
    look === "flight" ? setup : { ...setup, sheet: good.sheet, knobs: good.knobs },
    useGhosts(ready),
  );
  // The path is painted first, then the list of numbers.
  const readings = useDeferredValue(flight.data?.readings);
  const toy = good.toy;
  const last = good.steps.at(-1);
  if (!toy || !last) return null;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const v = toy.v_deg;
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        <Choice<Look>
          label="On the mat"
          value={look}
          options={[
            { value: "round", label: "In the round" },
            { value: "flight", label: "Flight" },
            { value: "flat", label: "Folded flat" },
            { value: "layers", label: "Layers" },
          ]}
          onChange={setLook}
        />
        {look === "flight" ? (
          flight.data ? (
            <FlightMat flight={flight.data} name={build.draft ? "draft" : `tweak ${build.tweaks.length}`} />
          ) : (
            <p>{flight.error ? flight.error.message : "Throwing it…"}</p>
          )
        ) : look === "round" && toy.round && !toy.behind ? (
          <PaperPicture
            picture={toy.round}
            colours={colours}
            label="The toy from above"
            className="h-[20rem] w-full lg:h-[26rem]"
          />
        ) : look === "round" && toy.round && toy.behind ? (
          <div className="grid min-h-0 grow items-center sm:grid-cols-[3fr_2fr]">
            <PaperPicture
              picture={toy.round}
              colours={colours}
              showCentre
              label="The glider from behind and above, with its centre of mass"
              className="h-[15rem] w-full sm:h-[20rem]"
            />
            <figure className="flex flex-col justify-center">
              <PaperPicture
                picture={toy.behind}
                colours={colours}
                showCentre
                label="The glider straight from behind"
                className="h-[9rem] w-full"
              />
              <figcaption className="text-center text-sm text-quiet">
                Straight from behind:{" "}
                {v === 0
                  ? "both wings level"
                  : v > 0
                    ? `each wing ${number(v)}° up`
                    : `each wing ${number(-v)}° down`}
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
        {flight.data?.glider ? (
          <div data-measures="">
            <Readings readings={readings ?? flight.data.readings} />
            <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 border-t border-line pt-3 sm:grid-cols-4">
              <Measure name="Length" value={length(toy.length_mm, units)} />
              <Measure name="Keel depth" value={length(toy.keel_depth_mm, units)} />
              <Measure name="Balance above keel" value={length(toy.com_up_mm, units)} />
              <Measure
                name="Thickest stack"
                value={`${toy.max_layers} layers, ${thickness(toy.thickest_mm, units)}`}
              />
            </dl>
          </div>
        ) : (
          <dl
            className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 border-t border-line pt-3 sm:grid-cols-4"
            data-measures=""
          >
            <Measure name="Mass" value={`${number(toy.mass_g, 2)} g`} />
            <Measure name="Folded flat" value={sheetSize(toy.span_mm, toy.length_mm, units)} />
            <Measure
              name="Thickest stack"
              value={`${toy.max_layers} layers, ${thickness(toy.thickest_mm, units)}`}
            />
          </dl>
        )}
      </Mat>
      <Slip label="Slip" className="max-lg:pb-24">
        <h2 className="text-2xl">Set and balance</h2>
        <Impossible ready={ready} unless={() => true} />
        {toy.glider ? (
          <Figure value={lengthValue(toy.com_aft_mm, units)} unit={`${units} behind the nose`}>
            That is where it balances, {number(toy.com_percent, 0)} % of its length. Computed from every
            layer, for even paper without thickness.
          </Figure>
        ) : (
          <Figure value={number(toy.mass_g, 2)} unit="g">
            {toy.max_layers} layers at the thickest, {thickness(toy.thickest_mm, units)}.
          </Figure>
        )}
        {flight.data?.glider && <FlightBrief flight={flight.data} onShow={() => setLook("flight")} />}
        <ThrowControls />
        <DraftBox ready={ready} />
        {toy.glider && <MeasuredBends ready={ready} />}
        <div>
          <h3 className="text-lg">{toy.glider ? "Last bends" : "Set-up knobs"}</h3>
          <p className="text-sm text-quiet">They can be changed on the finished toy.</p>
          {toy.glider && <PencilCaution />}
          <Knobs ready={ready} only={(k) => k.kind === "set"} />
        </div>
        <div>
          <h3 className="text-lg">Folds</h3>
          <p className="text-sm text-quiet">
            These move a fold, so they need a new sheet once the toy has been thrown.
          </p>
          <Knobs ready={ready} only={(k) => k.kind === "fold"} />
        </div>
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
            {pattern.moves === "fly" ? "Throw it" : "Try it"} →
          </Button>
        </WayOn>
      </Slip>
    </>
  );
}

function Measure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className="title text-lg">{value}</dd>
    </div>
  );
}

/** The flight in one line, and the way to see it. */
function FlightBrief({ flight, onShow }: { flight: Flight; onShow: () => void }) {
  const units = useUnits();
  return (
    <section aria-label="Predicted flight" className="border-2 border-dotted border-lavender p-3">
      <p className="text-sm font-semibold text-lavender">predicted: {flight.mode}</p>
      <p>
        <span className="figure text-4xl">{distance(flight.distance.middle_m, units)}</span>
      </p>
      <p className="text-sm text-quiet">
        {distance(flight.distance.lo_m, units)} to {distance(flight.distance.hi_m, units)},{" "}
        {number(flight.time.middle)} s. {flight.mode_words}
      </p>
      <Button className="mt-2" onClick={onShow}>
        Show the flight
      </Button>
    </section>
  );
}
