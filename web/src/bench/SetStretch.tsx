import { useMemo, useState } from "react";
import { useNavigate } from "react-router";
import type { Toy } from "../api/client";
import { useShortcuts } from "../keys";
import { Button, Choice, Figure } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { area, length, lengthValue, number, sheetSize, thickness } from "../units";
import { MatHead } from "./MatHead";
import { DraftBox, Impossible, Knobs, Mat, Slip, WayOn } from "./Slip";
import type { Ready } from "./useBench";

type Look = "round" | "flat" | "layers";

/** The finished toy: last bends, knobs, balance. */
export function SetStretch({ ready }: { ready: Ready }) {
  const { build, good, bench, pattern } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [look, setLook] = useState<Look>("round");
  useShortcuts(
    useMemo(
      () => [
        {
          key: "l",
          label: "Layer map or the toy in the round",
          run: () => setLook((v) => (v === "layers" ? "round" : "layers")),
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
      [navigate, build.id, good.steps.length],
    ),
  );
  const toy = good.toy;
  const last = good.steps.at(-1);
  if (!toy || !last) return null;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const v = toy.v_deg;
  return (
    <>
      <Mat>
        <MatHead ready={ready} />
        <Choice<Look>
          label="On the mat"
          value={look}
          options={[
            { value: "round", label: "In the round" },
            { value: "flat", label: "Folded flat" },
            { value: "layers", label: "Layers" },
          ]}
          onChange={setLook}
        />
        {look === "round" && toy.round && !toy.behind ? (
          <PaperPicture
            picture={toy.round}
            colours={colours}
            label="The toy from above"
            className="h-[20rem] w-full lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
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
              className="h-[20rem] w-full lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
            />
            <figcaption className="text-center text-sm text-quiet">
              {look === "layers"
                ? `The number says how many layers lie there; the darker, the more, up to ${last.max_layers}.`
                : "◕ is the centre of mass of the toy folded flat."}
            </figcaption>
          </figure>
        )}
        <dl
          className="mt-3 grid grid-cols-2 gap-x-6 gap-y-1 border-t border-line pt-3 sm:grid-cols-4"
          data-measures=""
        >
          <Measure name="Mass" value={`${number(toy.mass_g, 2)} g`} />
          {toy.glider ? (
            <>
              <Measure name="Length" value={length(toy.length_mm, units)} />
              <Measure name="Span" value={length(toy.span_mm, units)} />
              <Measure name="Wing area" value={area(toy.wing_area_mm2, units)} />
              <Measure name="Keel depth" value={length(toy.keel_depth_mm, units)} />
              <Measure name="Balance above keel" value={length(toy.com_up_mm, units)} />
            </>
          ) : (
            <Measure name="Folded flat" value={sheetSize(toy.span_mm, toy.length_mm, units)} />
          )}
          <Measure
            name="Thickest stack"
            value={`${toy.max_layers} layers, ${thickness(toy.thickest_mm, units)}`}
          />
          {toy.glider && <Measure name="V of the wings" value={`${number(v)}°`} />}
        </dl>
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
        {toy.balance && <Balance b={toy.balance} />}
        <DraftBox ready={ready} />
        <div>
          <h3 className="text-lg">Knobs</h3>
          <p className="text-sm text-quiet">
            Set-up knobs are last bends. The others move a fold, so they need a new sheet once the toy has
            been thrown.
          </p>
          <Knobs ready={ready} />
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

/** Where the lift acts: predicted, with its band. */
function Balance({ b }: { b: NonNullable<Toy["balance"]> }) {
  const units = useUnits();
  const [m, by] = [b.margin_percent, b.margin_by_percent];
  const where = `${length(Math.abs((m / 100) * b.chord_mm), units)} ${m < 0 ? "behind" : "ahead of"} the neutral point`;
  const words = {
    steady: "It puts itself right after a gust.",
    "tail-heavy": "It is tail-heavy and hardly recovers; put weight on the nose.",
    unsure: "That is less than can be told: neither steady nor unsteady at small angles.",
  }[b.steadiness];
  return (
    <section aria-label="Static margin" className="border-2 border-dotted border-lavender p-3">
      <p className="text-sm font-semibold text-lavender">predicted</p>
      <p>
        <span className="figure text-4xl">{number(m, 1)}</span>{" "}
        <span className="title text-lg">± {number(by, 0)} % static margin</span>
      </p>
      <p className="mt-1">
        The balance point lies {where}. {words}
      </p>
      <p className="mt-1 text-sm text-quiet">
        Neutral point {length(b.neutral_aft_mm, units)} behind the nose, mean chord{" "}
        {length(b.chord_mm, units)}, aspect ratio {number(b.aspect_ratio, 2)}, wing loading{" "}
        {number(b.loading_n_m2, 2)} N/m². Vortex lattice over flat, rigid wings at small angles; soft wings
        shift it. A level glide also needs the tail curled up a little: that is not predicted yet.
      </p>
    </section>
  );
}
