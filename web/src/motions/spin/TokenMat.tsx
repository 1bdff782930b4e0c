import { useState } from "react";
import { Link } from "react-router";
import type { Prediction } from "../../api/client";
import { Choice } from "../../parts/controls";
import { Outcomes } from "../../parts/Outcomes";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import type { FaceProps, MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { Scrubber } from "../Scrubber";
import { FromAbove, Plain } from "./FromAbove";
import { SpinChart } from "./SpinChart";
import type { TokenDrawing } from "./types";

const tokenOf = (p: Prediction) => p.drawing?.data as TokenDrawing;

/** The toy under the clock on which a lean is tapped. */
export function TokenFace({ prediction, colours }: FaceProps) {
  return <Plain token={tokenOf(prediction)} colours={colours} />;
}

/** Turns since the start at a time: between the moments that are told it goes on evenly. */
function turnsAt(t: TokenDrawing, at: number): number {
  const i = t.curve.findIndex((c) => c.t >= at);
  const [a, b] = [t.curve[i - 1], t.curve[i]];
  if (!b) return t.curve.at(-1)?.turns ?? 0;
  if (!a || b.t === a.t) return b.turns;
  return a.turns + ((b.turns - a.turns) * (at - a.t)) / (b.t - a.t);
}

const oClock = (h: number) => `${Math.round(h) || 12} o'clock`;

/** A token on the mat: its balance from above, its spin, and what it comes to. */
export function TokenMat({ prediction, colours, onMeasured }: MatProps) {
  const token = tokenOf(prediction);
  const units = useUnits();
  const [at, setAt] = useState(0);
  const [speed, setSpeed] = useState<"slow" | "real">("slow");
  const [asked, setAsked] = useState(false);
  const end = token.curve.at(-1)?.t ?? 0;
  const now = token.curve.findLast((c) => c.t <= at);
  const mm = (v: number) => smallLength(v, units, v < 1 ? 2 : 1);
  const lowest = token.rim.reduce(
    (a, b) => (b.clear_mm < a.clear_mm ? b : a),
    token.rim[0] ?? { clear_mm: 0 },
  );
  const balance = `The weight lies ${mm(token.offset_mm)} from the point, towards ${oClock(token.towards)}.`;
  const words = `Predicted: ${prediction.mode}. ${balance}`;
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100`}
      </p>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <figure>
          <FromAbove
            token={token}
            colours={colours}
            turned={360 * (turnsAt(token, at) % 1)}
            moving={at > 0}
            label={`From above. ${words}`}
            onFound={
              asked && onMeasured
                ? (x, y) => {
                    setAsked(false);
                    onMeasured({ right: x - token.support.x, up: token.support.y - y });
                  }
                : undefined
            }
          />
          <figcaption className="text-sm text-quiet">
            From above, as it {token.hangs ? "hangs" : "spins"}. ✕ where it rests, ○ the centre of mass
            {token.measured ? ", ● where it was found" : ""}
            {token.mark ? `, — the mark made on the way, ${mm(token.stale_mm)} off by now` : ""}. Dotted
            arrow: the heavy side. Small dots: the balance step by step. Yellow: the spot of the rim that
            comes down first, {mm(Math.max(0, lowest.clear_mm))} above {token.hangs ? "the table" : "it"}.
          </figcaption>
          {onMeasured && (
            <button
              type="button"
              className="mt-1 min-h-11 border border-ink bg-panel px-3 hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel"
              aria-pressed={asked}
              onClick={() => {
                setAt(0);
                setAsked(!asked);
              }}
            >
              {asked ? "Tap the picture where it balances" : "I found the balance elsewhere"}
            </button>
          )}
        </figure>
        <div className="flex min-w-0 flex-col gap-2">
          {token.curve.length > 0 ? (
            <>
              <SpinChart token={token} at={at} words={words} />
              <Scrubber
                key={speed}
                label="Moment of the spin"
                words={now ? `${number(at, 1)} s, ${number(now.rate, 1)} turns a second` : ""}
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
              <p className="text-sm text-quiet" data-moment="">
                {now &&
                  `After ${number(at, 1)} s: ${number(now.rate, 1)} turns a second, ${number(turnsAt(token, at), 0)} turns made, leaning ${number(now.lean, 1)}°.`}
              </p>
            </>
          ) : (
            <p className="border border-line p-3">
              It does not turn long enough to draw: {prediction.mode}. Bring the point to the balance first.
            </p>
          )}
          <Outcomes outcomes={prediction.outcomes} />
        </div>
      </div>
      <p className="text-quiet">
        {prediction.mode_words}{" "}
        {prediction.own.trials > 0
          ? `Learnt from ${prediction.own.trials} spins: the air slows yours ${number(prediction.own.factor, 2)} times as much as the laws say, and bands are narrower.`
          : "Times are good to a half; three timed spins of your own make the bands narrower."}{" "}
        <Link to="/not-known/spin" className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
      {token.options.length > 0 && (
        <p className="text-quiet" data-options="">
          {token.options.map((o) => (
            <span key={o.step}>
              Optional step {o.step} moves the balance by {mm(o.off_mm)}, towards {oClock(o.to)}.{" "}
            </span>
          ))}
        </p>
      )}
      <PathTable
        summary={`How ${prediction.tries} scattered trials go, the rim and the balance as a table`}
        columns={["spot of the rim", "above the table", "bent up"]}
        rows={token.rim.map((r, i) => [r.name || `${i + 1}`, mm(r.clear_mm), mm(r.bent_mm)])}
      >
        {shares(prediction)}. Scattered are where the point comes to lie, the start, the friction, the sag of
        the rim, and what the model does not know. The balance moved, step by step:{" "}
        {token.trace.map((t) => `step ${t.step} ${mm(t.off_mm)} off`).join(", ")}.
      </PathTable>
    </div>
  );
}
