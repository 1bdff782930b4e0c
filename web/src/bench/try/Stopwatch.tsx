import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useShortcuts } from "../../keys";
import { Button } from "../../parts/controls";

/** Start as the toy leaves the hand, stop as it lands. */
export function Stopwatch({ onStop }: { onStop: (seconds: number) => void }) {
  const [from, setFrom] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  const stop = useRef(onStop);
  useEffect(() => {
    stop.current = onStop;
  });
  useEffect(() => {
    if (from === null) return undefined;
    const timer = setInterval(() => setNow(performance.now()), 100);
    return () => clearInterval(timer);
  }, [from]);
  const press = useCallback(() => {
    if (from === null) {
      const t = performance.now();
      setNow(t);
      setFrom(t);
    } else {
      stop.current((performance.now() - from) / 1000);
      setFrom(null);
    }
  }, [from]);
  useShortcuts(useMemo(() => [{ key: "w", label: "Start or stop the stopwatch", run: press }], [press]));
  return (
    <Button
      onClick={press}
      aria-label={from === null ? "Start the stopwatch" : "Stop the stopwatch"}
      className="shrink-0"
    >
      {from === null ? "Start" : `Stop ${((now - from) / 1000).toFixed(1)} s`}
    </Button>
  );
}
