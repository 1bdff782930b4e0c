import { useState } from "react";
import { Link } from "react-router";
import type { Prediction } from "../../api/client";
import { Check, Choice } from "../../parts/controls";
import { Outcomes } from "../../parts/Outcomes";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import { CurveChart } from "../CurveChart";
import type { MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { Scrubber } from "../Scrubber";
import { AlongAxle, FromSide } from "./AlongAxle";
import { EvenOut } from "./EvenOut";
import type { WheelDrawing } from "./types";

const wheelOf = (p: Prediction) => p.drawing?.data as WheelDrawing;

/** Turns since the start at a time: between the moments that are told it goes on evenly. */
function turnsAt(w: WheelDrawing, at: number): number {
  const i = w.curve.findIndex((c) => c.t >= at);
  const [a, b] = [w.curve[i - 1], w.curve[i]];
  if (!b) return w.curve.at(-1)?.turns ?? 0;
  if (!a || b.t === a.t) return b.turns;
  return a.turns + ((b.turns - a.turns) * (at - a.t)) / (b.t - a.t);
}

/** A wheel on the mat: its blades along the axle and from the side, and how air turns it. */
export function WheelMat({ prediction, colours, onMeasured }: MatProps) {
  const wheel = wheelOf(prediction);
  const units = useUnits();
  const [at, setAt] = useState(0);
  const [speed, setSpeed] = useState<"slow" | "real">("slow");
  const [strobe, setStrobe] = useState(false);
  const end = wheel.curve.at(-1)?.t ?? 0;
  const now = wheel.curve.findLast((c) => c.t <= at);
  const flashes = wheel.strobes[0];
  // Under the stroboscope only the moments of its flashes are seen.
  const seen = strobe && flashes ? Math.floor(at * flashes.per_second) / flashes.per_second : at;
  const turned = 360 * turnsAt(wheel, seen) * (wheel.turning < 0 ? -1 : 1);
  const sense = wheel.sense
    ? `It turns ${wheel.sense}, seen from ${wheel.seen_from}.`
    : "Its blades lie neither way.";
  const words = `Predicted: ${prediction.mode}. ${sense}`;
  const line = (ps: WheelDrawing["curve"]) => ps.map((p) => ({ x: p.t, y: p.rate }));
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100`}
      </p>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <div>
          <figure>
            <AlongAxle
              wheel={wheel}
              colours={colours}
              turned={turned % 360}
              moving={at > 0}
              label={`Along the axle, seen from ${wheel.seen_from}. ${words}`}
            />
            <figcaption className="text-sm text-quiet">
              Along the axle, seen from {wheel.seen_from}. {sense} Blades lie at {number(wheel.beta_deg, 0)}°
              to the plane of the wheel; they are drawn bent like a screw.
              {wheel.jet && " Dotted: where the breath meets it."}
              {wheel.moves.length > 0 && " Yellow: the blade to move first."}
            </figcaption>
          </figure>
          <figure className="mt-2">
            <FromSide wheel={wheel} colours={colours} />
            <figcaption className="text-sm text-quiet">
              From the side, tip {wheel.side_up ? "up" : "down"}. {smallLength(wheel.radius_mm, units, 0)}{" "}
              from the axle to the rim, a hub of {smallLength(wheel.hub_mm, units, 0)}.
            </figcaption>
          </figure>
        </div>
        <div className="flex min-w-0 flex-col gap-2">
          {wheel.curve.length > 0 ? (
            <>
              <CurveChart
                curve={line(wheel.curve)}
                band={wheel.band.map((b) => ({ x: b.t, lo: b.lo, hi: b.hi }))}
                ghosts={wheel.ghosts.map((g) => ({ name: g.name, curve: line(g.curve) }))}
                now={{ x: at, y: now?.rate ?? 0 }}
                xTitle="time, s"
                yTitle="turns a second"
                path="predicted, the middle one of many trials; the band holds eight of ten"
                words={words}
              />
              <Scrubber
                key={speed}
                label={wheel.falls ? "Moment of the fall" : "Moment since the breath began"}
                words={now ? `${number(at, 2)} s, ${number(now.rate, 1)} turns a second` : ""}
                at={at}
                end={end}
                rate={speed === "slow" ? 0.1 : 1}
                play={speed === "slow" ? "Play slowly" : "Play"}
                onMove={setAt}
              />
              <Choice<"slow" | "real">
                label="Speed"
                value={speed}
                options={[
                  { value: "slow", label: "ten times slower" },
                  { value: "real", label: "as fast as it is" },
                ]}
                onChange={setSpeed}
              />
              {flashes && (
                <Check checked={strobe} onChange={setStrobe}>
                  Under a stroboscope of {number(flashes.per_second, 1)} flashes a second
                </Check>
              )}
              <p className="text-sm text-quiet" data-moment="">
                {now &&
                  `After ${number(at, 2)} s: ${number(now.rate, 1)} turns a second, ${number(turnsAt(wheel, at), 1)} turns made${wheel.falls ? `, falling at ${number(now.speed, 1)} m/s` : ""}.`}
              </p>
            </>
          ) : (
            <p className="border border-line p-3">It does not turn so: {prediction.mode}.</p>
          )}
          <Outcomes outcomes={prediction.outcomes} />
          <EvenOut wheel={wheel} onMeasured={onMeasured} />
        </div>
      </div>
      <p className="text-quiet">
        {prediction.mode_words}{" "}
        {prediction.own.trials > 0
          ? `Learnt from ${prediction.own.trials} of your own: you blow ${number(prediction.own.factor, 2)} times as hard as was set.`
          : "Blown rates are good to between 0.6 and 1.5 times; three of your own make the band narrower."}
        {(prediction.own.also ?? []).map(
          (l) => ` Learnt from ${l.trials} falls: ${l.what}, ${number(l.factor, 2)} times.`,
        )}{" "}
        <Link to="/not-known/wheel" className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
      <PathTable
        summary={`How ${prediction.tries} scattered trials go, and the curve as a table`}
        columns={["time", "turns a second", "eight of ten"]}
        rows={wheel.band.map((b) => [
          `${number(b.t, 2)} s`,
          number(wheel.curve.findLast((c) => c.t <= b.t)?.rate ?? 0, 1),
          `${number(b.lo, 1)} to ${number(b.hi, 1)}`,
        ])}
      >
        {shares(prediction)}. Scattered are the breath, the angle of the blades, the friction, and what the
        model does not know. {wheel.strobes.map((s) => s.says).join(" ")}
      </PathTable>
    </div>
  );
}
