import { PaperPicture } from "../../parts/PaperPicture";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import type { MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { Beat } from "./Beat";
import { CurveChart } from "../CurveChart";
import { FlapMat } from "./FlapMat";
import { HandsCard } from "./HandsCard";
import type { SnapDrawing } from "./types";
import { useBeat } from "./useBeat";

/** A flapper for a finger on the mat: both shapes, what a snap takes, how it fades. */
export function SnapMat({ prediction, colours, measured = [] }: MatProps) {
  const snap = prediction.drawing?.data as SnapDrawing;
  const units = useUnits();
  const beat = useBeat();
  const frame = snap.frames[Math.round(beat.at * (snap.frames.length - 1))];
  if (!frame) return <p>{prediction.mode_words}</p>;
  const mm = (v: number) => smallLength(v, units);
  const moment = `wings ${number(frame.swing_deg, 1)}° from rest, tips ${mm(frame.tip_mm)}`;
  const part = Math.min(1, snap.takes_mj / (2 * snap.gives_mj));
  const learnt =
    prediction.own.trials > 0
      ? `Learnt from ${prediction.own.trials} presses: yours swing ${number(prediction.own.factor, 2)} times as far as the cone says, and bands are narrower.`
      : "Forces are good to a factor of three; three presses of your own make the bands narrower.";
  return (
    <FlapMat
      prediction={prediction}
      many="presses"
      way="snap"
      says={learnt}
      left={
        <>
          <div className="grid grid-cols-[2fr_1fr] gap-2">
            <figure>
              <PaperPicture
                picture={frame.side}
                colours={colours}
                label={`From its side, ${moment}`}
                className="h-48 w-full"
              />
              <figcaption className="text-center text-sm text-quiet">from its side</figcaption>
            </figure>
            <figure>
              <PaperPicture
                picture={frame.front}
                colours={colours}
                label={`From its end, ${moment}`}
                className="h-48 w-full"
              />
              <figcaption className="text-center text-sm text-quiet">from its end</figcaption>
            </figure>
          </div>
          <Beat label="How far it is pressed" words={moment} {...beat} />
          <p className="text-sm text-quiet" data-moment="">
            Now: {moment}. Wings are drawn stiff, turned about the short crease.
          </p>
          <HandsCard />
        </>
      }
      right={
        <>
          <CurveChart
            curve={snap.curve.map((p) => ({ x: p.push_deg, y: p.swing_deg }))}
            band={snap.curve.map((p) => ({ x: p.push_deg, lo: p.lo, hi: p.hi }))}
            ghosts={snap.ghosts.map((g) => ({
              name: g.name,
              curve: g.curve.map((p) => ({ x: p.push_deg, y: p.swing_deg })),
            }))}
            measured={measured.map((m) => ({ x: snap.push_deg, y: m }))}
            now={{
              x: snap.push_deg,
              y: snap.curve.findLast((p) => p.push_deg <= snap.push_deg)?.swing_deg ?? 0,
            }}
            xTitle="short crease pushed in, °"
            yTitle="swing of a wing, °"
            words={`Predicted: ${prediction.mode_words}`}
          />
          <figure>
            <svg
              viewBox="0 0 320 44"
              role="img"
              aria-label={`A snap takes ${number(snap.takes_mj, 1)} mJ of the ${number(snap.gives_mj, 0)} mJ that fingers give`}
              className="w-full"
              data-takes=""
            >
              <rect x="0" y="8" width="320" height="18" fill="none" stroke="var(--line)" />
              <rect x="0" y="8" width={320 * part} height="18" fill="var(--lavender)" fillOpacity="0.5" />
              <path d="M160 2V32" stroke="var(--ink)" strokeWidth="2" />
              <text x="164" y="42" fontSize="13" fill="var(--ink)">
                fingers give {number(snap.gives_mj, 0)} mJ
              </text>
            </svg>
            <figcaption className="text-sm text-quiet">
              A snap takes about {number(snap.takes_mj, 1)} mJ ({number(snap.takes_lo, 1)} to{" "}
              {number(snap.takes_hi, 1)}). {snap.two_rests ? "It stays in both shapes." : "It flutters back."}{" "}
              Tube {mm(snap.tube_mm)} round, {number(snap.turns, 2)} turns; finger {mm(snap.finger_mm)}.
            </figcaption>
          </figure>
        </>
      }
    >
      <PathTable
        summary={`How ${prediction.tries} scattered presses go, and how the swing fades`}
        columns={["beat", "swing left, °"]}
        rows={snap.fading.map((f) => [String(f.beat), number(f.swing_deg, 1)])}
      >
        {shares(prediction)}. Scattered are how far the crease is in, what fingers give, the tube on the
        finger, the peak, and what the model does not know. Wrap it and press again for each beat.
      </PathTable>
    </FlapMat>
  );
}
