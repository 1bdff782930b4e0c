import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import type { LeapDrawing } from "./types";
import { Outcomes } from "../../parts/Outcomes";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, recordValue } from "../../units";
import type { MatProps } from "../drawing";
import { HopChart } from "./HopChart";
import { Feet, Pleat } from "./HopCloseUps";
import { leaving, moment } from "./hopPose";
import { PathTable } from "../PathTable";
import { Scrubber } from "../Scrubber";

/** Seconds for the whole slider when it is played. */
const playS = 5;

/** A hop on the mat: press, push and flight from the side, and what it comes to. */
export function HopMat(props: MatProps) {
  return <Hop {...props} hop={props.prediction.drawing?.data as LeapDrawing} />;
}

function Hop({ prediction, hop, how, measured, name }: MatProps & { hop: LeapDrawing }) {
  const units = useUnits();
  const [at, setAt] = useState(0.55);
  const now = moment(hop, at);
  // The arc is painted first; what is looked at closely and the table follow.
  const later = useDeferredValue(hop);
  const close = moment(later, at);
  if (!now || !close) return <p>{prediction.mode_words}</p>;
  const phase = {
    press: "the finger presses the rear down",
    push: `${number(1000 * now.t)} ms after it slipped off: both folds push`,
    air: `${number(now.t, 2)} s in the air, ${recordValue(Math.max(0, now.pose.com.y), "cm", units)} up`,
  }[now.phase as "press" | "push" | "air"];
  const words =
    `Predicted: ${prediction.mode}. The middle hop comes ${recordValue(Math.abs(hop.length_m), "cm", units)} ` +
    `${hop.backward ? "backward" : "forward"} and ${recordValue(hop.height_m, "cm", units)} high.`;
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100 hops`}
      </p>
      <HopChart hop={hop} pose={now.pose} how={how} words={words} measured={measured} name={name} />
      <Scrubber label="Moment of the hop" words={phase} at={at} end={1} rate={1 / playS} onMove={setAt} />
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
        <Pleat
          hop={later}
          frame={close.phase === "air" ? (leaving(later) ?? close) : close}
          pressed={close.phase === "press"}
        />
        <Feet hop={later} />
      </div>
      <PathTable
        summary={`How ${prediction.tries} scattered hops go, and the path as a table`}
        columns={["time, s", "ahead", "height", "pitch, °"]}
        rows={later.path
          .filter((_, i) => i % 8 === 0 || i === later.path.length - 1)
          .map((p) => [
            number(p.t, 3),
            recordValue(p.x, "cm", units),
            recordValue(p.y, "cm", units),
            number(p.pitch, 0),
          ])}
      >
        {shares(prediction)}. Scattered are the places of the folds, how hard and how far they are pressed,
        the finger, the table, and what the model does not know.
      </PathTable>
    </div>
  );
}
