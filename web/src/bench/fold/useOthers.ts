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
  useEffect(() => {
    const source = new EventSource(`/api/v1/builds/${build}/progress`);
    source.onmessage = (e: MessageEvent<string>) => {
      const at = JSON.parse(e.data) as { step: number; device: string };
      if (at.device !== me) setOther(at.step);
    };
    return () => source.close();
  }, [build]);
  useEffect(() => {
    // Nobody needs to hear of it when the server has gone; the page says so elsewhere.
    api.tellStep(build, step, me).catch(() => undefined);
  }, [build, step]);
  return other;
}
