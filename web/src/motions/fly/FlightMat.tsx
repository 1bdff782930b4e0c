import { useState } from "react";
import { Link } from "react-router";
import type { FlightDrawing } from "./types";
import { moment } from "./moment";
import { Outcomes } from "../../parts/Outcomes";
import { shares } from "../../parts/trialWords";
import { Choice } from "../../parts/controls";
import { useUnits } from "../../settings";
import { distance, number } from "../../units";
import type { MatProps } from "../drawing";
import { FlightChart, type Aspect } from "./FlightChart";
import { PathTable } from "../PathTable";
import { Scrubber } from "../Scrubber";

/** Shares of a second that pass in a second when it is played slowly. */
const slow = 0.25;

/** A flight on the mat: its paths, a moment of it, and what it comes to. */
export function FlightMat(props: MatProps) {
  return <Flight {...props} flight={props.prediction.drawing?.data as FlightDrawing} />;
}

function Flight({ prediction, flight, how: asked, measured, name }: MatProps & { flight: FlightDrawing }) {
  const units = useUnits();
  const [main] = prediction.outcomes;
  // What was left to the toy is what it takes.
  const how = { ...asked, ...prediction.offered };
  const words =
    `Predicted ${prediction.mode}. The middle throw: ${distance(flight.middle.distance_m, units)} in ${number(flight.middle.time_s)} s, ` +
    `highest ${distance(flight.middle.highest_m, units)}` +
    (main
      ? `; eight of ten throws land between ${distance(main.lo, units)} and ${distance(main.hi, units)}.`
      : ".");
  const [aspect, setAspect] = useState<Aspect>("side");
  const [at, setAt] = useState(0);
  const end = flight.path.at(-1)?.t ?? 0;
  const now = moment(flight.path, Math.min(at, end));
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <p className="title text-xl" data-mode={prediction.mode}>
          Predicted: {prediction.mode}
          {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100 throws`}
        </p>
        <Choice<Aspect>
          label="Seen"
          quiet
          value={aspect}
          options={[
            { value: "side", label: "From the side" },
            { value: "plan", label: "From above" },
            { value: "space", label: "In space" },
          ]}
          onChange={setAspect}
        />
      </div>
      <FlightChart
        flight={flight}
        words={words}
        how={how}
        aspect={aspect}
        at={Math.min(at, end)}
        measured={measured}
        name={name}
      />
      <p className="text-quiet">
        {prediction.mode_words} The thin line is a perfect throw, just as meant:{" "}
        {distance(flight.meant.distance_m, units)}, {flight.meant.mode}. {ends(flight, units)}{" "}
        <Link to="/not-known/fly" className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
      <Scrubber
        label="Moment of the flight"
        words={`${number(at, 2)} s`}
        at={Math.min(at, end)}
        end={end}
        rate={slow}
        onMove={setAt}
      />
      <p className="min-h-12 text-sm text-quiet" data-moment="">
        At {number(now.t, 2)} s: {number(now.speed)} m/s, angle of attack {number(now.attack)}°, nose{" "}
        {now.pitch >= 0 ? `${number(now.pitch)}° up` : `${number(-now.pitch)}° down`}, bank{" "}
        {Math.abs(now.bank) < 0.5
          ? "level"
          : `${number(Math.abs(now.bank))}° ${now.bank > 0 ? "right" : "left"}`}
        , {distance(Math.max(0, now.z), units)} up. The dotted line is where the air comes from.
      </p>
      <Outcomes outcomes={prediction.outcomes} />
      <PathTable
        summary={`How ${prediction.tries} scattered throws fly, and the path as a table`}
        columns={["time, s", "ahead, m", "aside, m", "height, m", "speed, m/s"]}
        rows={flight.path
          .filter((_, i) => i % 8 === 0 || i === flight.path.length - 1)
          .map((p) => [number(p.t, 2), number(p.x, 2), number(p.y, 2), number(p.z, 2), number(p.speed)])}
      >
        {shares(prediction)}. Scattered are speed, angle and bank of the throw, the last bends and the balance
        by what a hand misses, the weight of the paper, and what the model does not know.
      </PathTable>
    </div>
  );
}

function ends(f: FlightDrawing, units: "mm" | "in") {
  const rope =
    f.rope_over_m === undefined
      ? ""
      : f.rope_over_m > 0
        ? ` It clears the rope by ${distance(f.rope_over_m, units)}.`
        : ` It passes ${distance(-f.rope_over_m, units)} under the rope.`;
  const how: Record<string, string> = {
    wall: "It meets the wall ahead.",
    "side wall": "It meets a side wall.",
    ceiling: "It meets the ceiling.",
    "still in the air": "After a minute it is still up.",
    "out of range": "The model loses it: nothing can be said of the rest.",
  };
  return (how[f.end] ?? "") + rope;
}
