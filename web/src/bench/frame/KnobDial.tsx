import { Slider } from "radix-ui";
import { memo, useState } from "react";
import type { Knob, Reach } from "../../api/client";
import { useUnits } from "../../settings";
import { dialled, dialValue, knobValue } from "../../units";

/**
 * One knob: a slider, the value to type, and what it changes. It rests while another one
 * moves.
 */
export const KnobDial = memo(Dial);

function Dial({
  knob,
  value,
  reach,
  brief = false,
  onTry,
  onKeep,
}: {
  knob: Knob;
  value: number;
  /** How far it goes on this sheet, when that is known. */
  reach?: Reach;
  /** What it does in one sentence, the rest when asked for. */
  brief?: boolean;
  onTry: (knob: string, v: number) => void;
  /** now: at once; else when the dial has rested for a moment. */
  onKeep: (knob: string, v: number, now: boolean) => void;
}) {
  const units = useUnits();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const stepSize =
    knob.step || (knob.unit === "mm" || knob.unit === "deg" ? 0.5 : knob.unit === "part" ? 0.005 : 0.01);
  // What is finer than a sixteenth of an inch has decimals in both units.
  const fine = knob.unit === "mm" && knob.step > 0 && knob.step < 0.5;
  const [shown, unit] = dialValue(value, knob.unit, fine, units);
  const take = () => {
    if (typed === null) return;
    const v = dialled(typed, knob.unit, units);
    if (typed === shown) {
      setTyped(null);
    } else if (v === undefined || v < knob.min || v > knob.max) {
      setProblem(
        `${knob.label} is “${typed}”; it must be ${knobValue(knob.min, knob.unit, units)} to ${knobValue(knob.max, knob.unit, units)}.`,
      );
      return;
    } else {
      onTry(knob.name, v);
      onKeep(knob.name, v, true);
      setTyped(null);
    }
    setProblem("");
  };
  const where = knob.steps.length > 0 ? `step ${knob.steps.join(", ")}` : "";
  const beside = `${value === knob.default ? "" : `The pattern has ${knob.named.find((n) => knob.either && n.value === knob.default)?.label ?? knobValue(knob.default, knob.unit, units)}. `}${where ? `Belongs to ${where}.` : ""}`;
  const [, first = knob.changes, rest = ""] = /^(.*?[.!?])(?:\s+(.*))?$/.exec(knob.changes) ?? [];
  return (
    <div className={`border-t border-line ${brief ? "py-1.5" : "py-3"}`}>
      <div className="flex items-baseline justify-between gap-3">
        <span className="font-semibold" id={`knob-${knob.name}`}>
          {knob.label}
        </span>
        <span className={knob.either ? "hidden" : "flex items-baseline gap-1"}>
          <input
            aria-label={`${knob.label}, value`}
            data-unit={unit}
            className="w-20 border border-ink bg-panel px-2 py-1 text-right text-lg font-semibold"
            value={typed ?? shown}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={take}
            onKeyDown={(e) => {
              if (e.key === "Enter") take();
              if (e.key === "Escape") {
                setTyped(null);
                setProblem("");
              }
            }}
          />
          <span className="w-6">{unit}</span>
        </span>
      </div>
      <Slider.Root
        className={knob.either ? "hidden" : "relative mt-1 flex h-9 touch-none items-center select-none"}
        value={[value]}
        min={knob.min}
        max={knob.max}
        step={stepSize}
        onValueChange={([v]) => v !== undefined && onTry(knob.name, v)}
        onValueCommit={([v]) => v !== undefined && onKeep(knob.name, v, false)}
      >
        <Slider.Track className="relative h-1 grow bg-line">
          <Slider.Range className="absolute h-full bg-ink" />
          {reach?.below && <Beyond from={0} to={part(reach.min, knob)} />}
          {reach?.above && <Beyond from={part(reach.max, knob)} to={1} />}
        </Slider.Track>
        <Slider.Thumb
          aria-labelledby={`knob-${knob.name}`}
          aria-valuetext={knobValue(value, knob.unit, units)}
          className="block h-7 w-6 border-2 border-ink bg-panel"
        />
      </Slider.Root>
      {knob.named.length > 0 && (
        <div className="mb-1 flex flex-wrap gap-1.5" role="group" aria-label={`${knob.label}, by name`}>
          {knob.named.map((n) => (
            <button
              key={n.label}
              type="button"
              className="min-h-9 border border-ink bg-panel px-2 text-sm hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel"
              aria-pressed={Math.abs(n.value - value) < 1e-6}
              onClick={() => {
                onTry(knob.name, n.value);
                onKeep(knob.name, n.value, true);
              }}
            >
              {n.label}
            </button>
          ))}
        </div>
      )}
      {problem && (
        <p role="alert" className="mb-1 bg-caution px-2 py-1 text-sm text-on-mark">
          {problem}
        </p>
      )}
      {brief ? (
        <details className="text-sm text-quiet">
          <summary>{first}</summary>
          <p className="mt-1">
            {rest} {beside}
          </p>
        </details>
      ) : (
        <p className="text-sm text-quiet">
          {knob.changes} {beside}
        </p>
      )}
      {reach && (reach.below || reach.above) && (
        <details className="mt-1 text-sm">
          <summary>
            On this sheet it goes from {knobValue(reach.min, knob.unit, units)} to{" "}
            {knobValue(reach.max, knob.unit, units)}
          </summary>
          {[reach.below, reach.above].map(
            (end) =>
              end && (
                <p key={end.at} className="mt-1">
                  At {knobValue(end.at, knob.unit, units)}, step {end.step}: {end.why}.
                  {end.other &&
                    ` It can be folded with “${end.other}” at ${knobValue(end.to, end.unit, units)}.`}
                </p>
              ),
          )}
          <p className="mt-1 text-quiet">Found by folding it, the other knobs as they are.</p>
        </details>
      )}
    </div>
  );
}

/** Where on a knob's track a value stands, 0 to 1. */
const part = (v: number, knob: Knob) => (v - knob.min) / (knob.max - knob.min);

/** A stretch of the track that cannot be folded, or where other pieces would move. */
function Beyond({ from, to }: { from: number; to: number }) {
  return (
    <span
      aria-hidden
      className="absolute h-full bg-caution"
      style={{ left: `${from * 100}%`, right: `${(1 - to) * 100}%` }}
    />
  );
}
