import { useEffect, useState } from "react";

/** Seconds of one beat, there and back. */
const beatS = 1.4;

/**
 * A place between rest, 0, and the end of a pull or press, 1: moved by hand, or going there
 * and back while it beats. Nothing is drawn anew at rest.
 */
export function useBeat(): {
  at: number;
  beating: boolean;
  move: (at: number) => void;
  beat: (on: boolean) => void;
} {
  const [at, setAt] = useState(0);
  const [beating, setBeating] = useState(false);
  useEffect(() => {
    if (!beating) return undefined;
    const from = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      const t = ((now - from) / 1000 / beatS) % 1;
      setAt(0.5 - 0.5 * Math.cos(2 * Math.PI * t));
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [beating]);
  return {
    at,
    beating,
    move: (v) => {
      setBeating(false);
      setAt(v);
    },
    beat: setBeating,
  };
}
