import { useCallback, useEffect, useState } from "react";

/** How long the page is left alone before anything is asked that nobody waits for, ms. */
const calmMS = 1200;

/** Lets a list ask one after the other: the next one when the one before has its answer. */
export function useInTurn(): [number, (done: number) => void] {
  const [turn, setTurn] = useState(-1);
  useEffect(() => {
    const timer = setTimeout(() => setTurn((t) => Math.max(t, 0)), calmMS);
    return () => clearTimeout(timer);
  }, []);
  const done = useCallback((i: number) => setTurn((t) => Math.max(t, i + 1)), []);
  return [turn, done];
}
