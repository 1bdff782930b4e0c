import { useEffect, useState } from "react";
import { Button } from "../parts/controls";

/** A moment of a motion, to be moved by hand or played. */
export function Scrubber({
  label,
  words,
  at,
  end,
  rate,
  play = "Play slowly",
  onMove,
}: {
  label: string;
  /** The moment in words. */
  words: string;
  at: number;
  end: number;
  /** How far it moves in a second when it is played. */
  rate: number;
  /** What the button says. */
  play?: string;
  onMove: (at: (before: number) => number) => void;
}) {
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return undefined;
    let last = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      onMove((t) => {
        const next = t + ((now - last) / 1000) * rate;
        if (next >= end) setPlaying(false);
        return Math.min(end, next);
      });
      last = now;
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, end, rate, onMove]);
  return (
    <div className="flex items-center gap-3">
      <Button
        className="shrink-0 whitespace-nowrap"
        onClick={() => {
          if (!playing && at >= end) onMove(() => 0);
          setPlaying(!playing);
        }}
      >
        {playing ? "Stop" : play}
      </Button>
      <input
        type="range"
        className="h-9 grow accent-ink"
        aria-label={label}
        aria-valuetext={words}
        min={0}
        max={end}
        step={0.01}
        value={at}
        onChange={(e) => {
          const v = Number(e.target.value);
          setPlaying(false);
          onMove(() => v);
        }}
      />
    </div>
  );
}
