import { useEffect, useState } from "react";
import { api } from "../../api/client";

/** A name for this window, to know its own moves by. */
const me = (() => {
  const kept = sessionStorage.getItem("tussock-device");
  if (kept) return kept;
  const fresh = Math.random().toString(36).slice(2, 10);
  sessionStorage.setItem("tussock-device", fresh);
  return fresh;
})();

/** Tells other devices where this one is, and says where another is: its step, or undefined. */
export function useOthers(build: number, step: number): number | undefined {
  const [other, setOther] = useState<number>();
  const [back, setBack] = useState(0);
  useEffect(() => {
    const source = new EventSource(`/api/v1/builds/${build}/progress`);
    source.onmessage = (e: MessageEvent<string>) => {
      const at = JSON.parse(e.data) as { step: number; device: string };
      if (at.device !== me) setOther(at.step);
    };
    // A page that is left may be kept for the way back, and its line would stay taken: a
    // browser has six to a host.
    const leave = () => source.close();
    const again = (e: PageTransitionEvent) => e.persisted && setBack((n) => n + 1);
    window.addEventListener("pagehide", leave);
    window.addEventListener("pageshow", again);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("pageshow", again);
      leave();
    };
  }, [build, back]);
  useEffect(() => {
    // Nobody needs to hear of it when the server has gone; the page says so elsewhere.
    api.tellStep(build, step, me).catch(() => undefined);
  }, [build, step]);
  return other;
}
