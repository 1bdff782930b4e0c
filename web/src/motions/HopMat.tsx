import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { LeapDrawing } from "../api/client";
import { Outcomes } from "../bench/Outcomes";
import { shares } from "../bench/trialWords";
import { Button } from "../parts/controls";
import { useUnits } from "../settings";
import { number, recordValue } from "../units";
import type { MatProps } from "./drawing";
import { HopChart } from "./HopChart";
import { Feet, Pleat } from "./HopCloseUps";
import { moment } from "./hopPose";

/** Seconds for the whole slider when it is played. */
const playS = 5;

/** A hop on the mat: press, push and flight from the side, and what it comes to. */
export function HopMat(props: MatProps) {
  const { hop } = props.prediction.drawing;
  return hop ? <Hop {...props} hop={hop} /> : <p>{props.prediction.mode_words}</p>;
}

function Hop({ prediction, hop, how, measured, name }: MatProps & { hop: LeapDrawing }) {
  const units = useUnits();
  const [at, setAt] = useState(0.55);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return undefined;
    let last = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      setAt((u) => {
        const next = u + (now - last) / 1000 / playS;
        if (next >= 1) setPlaying(false);
        return Math.min(1, next);
      });
      last = now;
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  const now = moment(hop, at);
  const phase = {
    press: "the finger presses the rear down",
    push: `${number(1000 * now.t)} ms after it slipped off: both folds push`,
    air: `${number(now.t, 2)} s in the air, ${recordValue(Math.max(0, now.pose.com[1]), "cm", units)} up`,
  }[now.phase];
  const words =
    `Predicted: ${prediction.mode}. Just as meant it comes ${recordValue(Math.abs(hop.length_m), "cm", units)} ` +
    `${hop.backward ? "backward" : "forward"} and ${recordValue(hop.height_m, "cm", units)} high.`;
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
      </p>
      <HopChart hop={hop} pose={now.pose} how={how} words={words} measured={measured} name={name} />
      <div className="flex items-center gap-3">
        <Button
          className="shrink-0 whitespace-nowrap"
          onClick={() => {
            if (!playing && at >= 1) setAt(0);
            setPlaying(!playing);
          }}
        >
          {playing ? "Stop" : "Play slowly"}
        </Button>
        <input
          type="range"
          className="h-9 grow accent-ink"
          aria-label="Moment of the hop"
          aria-valuetext={phase}
          min={0}
          max={1}
          step={0.01}
          value={at}
          onChange={(e) => {
            setPlaying(false);
            setAt(Number(e.target.value));
          }}
        />
      </div>
      <p className="text-sm text-quiet" data-moment="">
        Now: {phase}. The slider gives the push, which lasts milliseconds, as much room as the flight.
      </p>
      <Outcomes outcomes={prediction.outcomes} />
      <p className="text-quiet">
        {prediction.mode_words}{" "}
        {prediction.own.trials > 0
          ? `Learnt from ${prediction.own.trials} hops of ${prediction.own.builds === 1 ? "one build" : `${prediction.own.builds} builds`}: ${number(prediction.own.factor, 2)} times the model's energy, and narrower bands.`
          : "Sizes are good to a factor of two; three hops of your own make the bands narrower."}{" "}
        <Link to="/not-known/hop" className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
      <div className="grid gap-4 border-t border-line pt-2 sm:grid-cols-2">
        <Pleat hop={hop} pose={now.pose} pressed={now.phase === "press"} />
        <Feet hop={hop} />
      </div>
      <details>
        <summary>How {prediction.tries} scattered hops go, and the path as a table</summary>
        <p className="mt-1">
          {shares(prediction)}. Scattered are the places of the folds, how far it is pressed, the finger, the
          table, and what the model does not know.
        </p>
        <div
          className="mt-2 max-h-60 overflow-auto"
          tabIndex={0}
          role="region"
          aria-label="The path as a table"
        >
          <table className="w-full text-right">
            <thead className="text-sm text-quiet">
              <tr>
                <th scope="col">time, s</th>
                <th scope="col">ahead</th>
                <th scope="col">height</th>
                <th scope="col">pitch, °</th>
              </tr>
            </thead>
            <tbody>
              {hop.path
                .filter((_, i) => i % 8 === 0 || i === hop.path.length - 1)
                .map((p) => (
                  <tr key={p.t} className="border-t border-line">
                    <td>{number(p.t, 3)}</td>
                    <td>{recordValue(p.x, "cm", units)}</td>
                    <td>{recordValue(p.y, "cm", units)}</td>
                    <td>{number(p.pitch, 0)}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
      </details>
    </div>
  );
}
