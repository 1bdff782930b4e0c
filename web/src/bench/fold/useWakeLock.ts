import { useEffect, useState } from "react";

/** Keeps the screen awake while a view is shown; "" or why it cannot. */
export function useWakeLock(): string {
  const [problem, setProblem] = useState("");
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = async () => {
      if (!("wakeLock" in navigator)) {
        setProblem("This browser may let the screen sleep.");
        return;
      }
      try {
        lock = await navigator.wakeLock.request("screen");
        if (gone) await lock.release();
        else setProblem("");
      } catch {
        setProblem("This browser may let the screen sleep.");
      }
    };
    const back = () => {
      if (document.visibilityState === "visible") void ask();
    };
    void ask();
    document.addEventListener("visibilitychange", back);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", back);
      void lock?.release();
    };
  }, []);
  return problem;
}
