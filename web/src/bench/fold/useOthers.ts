import { useEffect, useState } from "react";
import { api } from "../../api/client";
import { me } from "../../api/page";
import { onEvent } from "../../events";

/** Tells other devices where this one is, and says where another is: its step, or undefined. */
export function useOthers(build: number, step: number): number | undefined {
  const [other, setOther] = useState<number>();
  useEffect(
    () =>
      onEvent((e) => {
        if (e.kind === "at" && e.build === build && e.at && e.at.device !== me) setOther(e.at.step);
      }),
    [build],
  );
  useEffect(() => {
    // Nobody needs to hear of it when the server has gone; the page says so elsewhere.
    api.tellStep(build, step, me).catch(() => undefined);
  }, [build, step]);
  return other;
}
