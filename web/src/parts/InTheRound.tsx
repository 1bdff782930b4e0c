import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState, type PointerEvent } from "react";
import { type Picture, type Setup } from "../api/client";
import { question } from "../api/queries";
import { Button } from "./controls";
import { PaperPicture } from "./PaperPicture";
import { useStill } from "./useStill";

const home = { azimuth: 8, elevation: 50 };
const limit = (v: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, v));

/** Before and after, one fading into the other. */
const fade = (frames: Picture[], at: number) => [
  { picture: frames[0], seen: 1 - at },
  { picture: frames[frames.length - 1], seen: at },
];

/**
 * A step in the round: scrubbed by a slider, looked at from any side by dragging. It is
 * drawn only when something changes.
 */
export function InTheRound({
  pattern,
  setup,
  step,
  className = "",
}: {
  pattern: string;
  setup: Setup;
  step: number;
  className?: string;
}) {
  const [camera, setCamera] = useState(home);
  const [at, setAt] = useState(0.4);
  const [playing, setPlaying] = useState(false);
  const found = useQuery(question.motion(pattern, step, setup, camera.azimuth, camera.elevation));
  const still = useStill();
  useEffect(() => {
    if (!playing) return undefined;
    let frame = 0;
    let last = performance.now();
    const tick = (now: number) => {
      const by = (now - last) / 1800;
      last = now;
      setAt((v) => {
        const next = v + by;
        if (next >= 1) setPlaying(false);
        return Math.min(1, next);
      });
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing]);
  const from = useRef<{ x: number; y: number; azimuth: number; elevation: number } | null>(null);
  const turn = useCallback((dx: number, dy: number, start: typeof home) => {
    setCamera({
      azimuth: Math.round(limit(start.azimuth - dx * 0.5, -180, 180)),
      elevation: Math.round(limit(start.elevation + dy * 0.5, -89, 89)),
    });
  }, []);
  const down = (e: PointerEvent<HTMLDivElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    from.current = { x: e.clientX, y: e.clientY, ...camera };
  };
  const move = (e: PointerEvent) => {
    if (from.current) turn(e.clientX - from.current.x, e.clientY - from.current.y, from.current);
  };
  const m = found.data;
  if (!m) return <div className={className} aria-busy="true" />;
  const last = m.frames.length - 1;
  const frame = m.frames[Math.round(at * last)];
  return (
    <div className={`flex flex-col ${className}`}>
      <div
        className="relative min-h-0 grow cursor-grab touch-none"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={() => (from.current = null)}
        onPointerCancel={() => (from.current = null)}
      >
        {(m.shown ? [{ picture: frame, seen: 1 }] : fade(m.frames, at)).map(
          (f, i) =>
            f.picture && (
              <div key={i} className="absolute inset-0" style={{ opacity: f.seen }}>
                <PaperPicture
                  picture={f.picture}
                  view={m.view}
                  colours={{ front: setup.sheet.front, back: setup.sheet.back }}
                  label={i === 0 ? `Step ${step} in the round, ${Math.round(at * 100)} % of the way` : ""}
                  className="h-full w-full"
                />
              </div>
            ),
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2 py-2">
        {!still && m.shown && (
          <Button
            onClick={() => {
              setAt(0);
              setPlaying(true);
            }}
          >
            Play
          </Button>
        )}
        <label className="flex grow items-center gap-2">
          <span className="text-sm">before</span>
          <input
            type="range"
            min={0}
            max={100}
            value={Math.round(at * 100)}
            aria-label="How far the step has gone"
            className="h-11 grow accent-ink"
            onChange={(e) => {
              setPlaying(false);
              setAt(Number(e.target.value) / 100);
            }}
          />
          <span className="text-sm">after</span>
        </label>
        <Button
          onClick={() => setCamera((c) => ({ azimuth: c.azimuth, elevation: -c.elevation }))}
          aria-pressed={camera.elevation < 0}
        >
          From underneath
        </Button>
        <Button onClick={() => turn(90, 0, camera)}>Turn ¼</Button>
      </div>
      <p className="text-sm text-quiet">
        {m.shown
          ? "Computed with flat, stiff pieces; whether they get in each other's way is not checked, and real paper bends. Layers are drawn four times as thick as they are. Drag to look from another side."
          : "How the paper gets from one to the other cannot be shown truthfully with flat pieces: before fades into after."}
      </p>
    </div>
  );
}
