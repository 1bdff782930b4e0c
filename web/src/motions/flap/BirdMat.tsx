import { PaperPicture } from "../../parts/PaperPicture";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import type { MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { Beat } from "./Beat";
import { CurveChart } from "../CurveChart";
import { FlapMat } from "./FlapMat";
import type { BirdDrawing } from "./types";
import { useBeat } from "./useBeat";

type Frame = BirdDrawing["frames"][number];

/** A bird on the mat: its wings beat by the computed angles, the pull against the swing. */
export function BirdMat({ prediction, colours, measured = [] }: MatProps) {
  const bird = prediction.drawing?.data as BirdDrawing;
  const units = useUnits();
  const beat = useBeat();
  const frame = bird.frames[Math.round(beat.at * (bird.frames.length - 1))];
  if (!frame) return <p>{prediction.mode_words}</p>;
  const mm = (v: number) => smallLength(v, units);
  const X = (v: number) => (units === "mm" ? v : v / 25.4);
  const moment = `pulled by ${mm(frame.pull_mm)}, hump open ${number(frame.open_deg, 0)}°, wings ${number(frame.swing_deg, 1)}° from rest`;
  const learnt =
    prediction.own.trials > 0
      ? `Learnt from ${prediction.own.trials} pulls: ${number(prediction.own.factor, 2)} times as much of a pull opens your hump as is taken, and bands are narrower.`
      : "Swings are good to a third; three pulls of your own make the bands narrower.";
  return (
    <FlapMat
      prediction={prediction}
      many="pulls"
      way="flap"
      says={`${learnt} The wings follow their roots exactly; the rest of the paper bends, and is drawn as it stood.`}
      left={
        <>
          <div className="grid grid-cols-2 gap-2">
            <figure>
              <PaperPicture
                picture={frame.front}
                colours={colours}
                label={`From the front, ${moment}`}
                className="h-44 w-full"
              />
              <figcaption className="text-center text-sm text-quiet">from the front</figcaption>
            </figure>
            <figure>
              <PaperPicture
                picture={frame.side}
                colours={colours}
                label={`From its side, ${moment}`}
                className="h-44 w-full"
              />
              <figcaption className="text-center text-sm text-quiet">
                from its side; ◯ where it binds first
              </figcaption>
            </figure>
          </div>
          <Hump bird={bird} frame={frame} mm={mm} />
          <Beat label="How far the tail is pulled" words={moment} {...beat} />
          <p className="text-sm text-quiet" data-moment="">
            Now: {moment}; tip {mm(frame.tip_mm)} on its way.
          </p>
        </>
      }
      right={
        <>
          <CurveChart
            curve={bird.curve.map((p) => ({ x: X(p.pull_mm), y: p.swing_deg }))}
            band={bird.band.map((b) => ({ x: X(b.pull_mm), lo: b.lo, hi: b.hi }))}
            ghosts={bird.ghosts.map((g) => ({
              name: g.name,
              curve: g.curve.map((p) => ({ x: X(p.pull_mm), y: p.swing_deg })),
            }))}
            measured={measured.map((m) => ({ x: X(bird.pull_mm), y: m }))}
            now={{ x: X(frame.pull_mm), y: frame.swing_deg }}
            xTitle={`pull of the tail, ${units}`}
            yTitle="swing of a wing, °"
            limit={{ x: X(bird.binds_mm), words: `binds: ${bird.binds_by}` }}
            words={`Predicted: ${prediction.mode_words}`}
          />
        </>
      }
    >
      <PathTable
        summary={`How ${prediction.tries} scattered pulls go, and the curve as a table`}
        columns={["pull", "hump open, °", "swing, °", "tip", "force, N"]}
        rows={bird.curve
          .filter((_, i) => i % 6 === 0 || i === bird.curve.length - 1)
          .map((p) => [
            mm(p.pull_mm),
            number(p.open_deg, 0),
            number(p.swing_deg, 1),
            mm(p.tip_mm),
            number(p.force_n, 3),
          ])}
      >
        {shares(prediction)}. Scattered are how flat the hump is pressed, how far the hand pulls, how much
        neck and tail give, where it is held, and what the model does not know.
      </PathTable>
    </FlapMat>
  );
}

/** The hump alone, from its side: both ridges, the hands, how far it may open. */
function Hump({ bird, frame, mm }: { bird: BirdDrawing; frame: Frame; mm: (v: number) => string }) {
  const all = bird.frames.flatMap((f) => [f.hump.neck, f.hump.tail, f.hump.hold, f.hump.pull]);
  const xs = all.map((p) => p.x);
  const ys = all.map((p) => -p.y);
  const r = Math.hypot(frame.hump.neck.x, frame.hump.neck.y);
  const x0 = Math.min(-r, ...xs) - 16;
  const x1 = Math.max(r, ...xs) + 16;
  const y0 = Math.min(0, ...ys) - 9;
  const y1 = Math.max(...ys, r) + 12;
  const ray = (deg: number, side: number) => {
    const a = (deg * Math.PI) / 360;
    return `M0 0L${side * r * Math.sin(a)} ${r * Math.cos(a)}`;
  };
  const { neck, tail, hold, pull } = frame.hump;
  return (
    <figure>
      <svg
        viewBox={`${x0} ${y0} ${x1 - x0} ${y1 - y0}`}
        role="img"
        aria-label={`The hump from its side, open ${number(frame.open_deg, 0)}°; it binds at ${number(bird.ceiling_deg, 0)}°`}
        className="h-48 w-full"
        data-hump=""
      >
        {[-1, 1].map((side) => (
          <g key={side} fill="none" stroke="var(--quiet)" strokeWidth="0.6">
            <path d={ray(bird.rest_deg, side)} strokeDasharray="2 1.6" />
            <path d={ray(bird.ceiling_deg, side)} strokeDasharray="5 2" />
          </g>
        ))}
        <path
          d={`M${neck.x} ${-neck.y}L0 0L${tail.x} ${-tail.y}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
          strokeLinejoin="round"
        />
        <path
          d={`M${tail.x} ${-tail.y}L${pull.x} ${-pull.y}`}
          stroke="var(--ink)"
          strokeWidth="0.8"
          strokeDasharray="1.5 1.2"
        />
        <circle cx={hold.x} cy={-hold.y} r="2.6" fill="var(--panel)" stroke="var(--ink)" strokeWidth="0.9" />
        <path
          d={`M${pull.x} ${-pull.y}h-11m3 -3l-3 3l3 3`}
          fill="none"
          stroke="var(--lavender)"
          strokeWidth="1.4"
        />
        <text
          x={Math.max(hold.x + 4.5, r * Math.sin((bird.ceiling_deg * Math.PI) / 360) + 2)}
          y={-hold.y + 1.5}
          fontSize="6"
          fill="var(--ink)"
        >
          held
        </text>
        <text x={pull.x} y={-pull.y - 4.5} fontSize="6" fill="var(--ink)" textAnchor="middle">
          pulled
        </text>
        <text x="0" y="-3" fontSize="6" fill="var(--ink)" textAnchor="middle">
          hump
        </text>
      </svg>
      <figcaption className="text-sm text-quiet">
        The hump from its side: neck to the right, tail to the left. Short dashes: at rest. Long dashes: as
        far as it opens, after a pull of {mm(bird.binds_mm)}. Thickness lets it shut to{" "}
        {number(bird.floor_deg, 2)}°.
      </figcaption>
    </figure>
  );
}
