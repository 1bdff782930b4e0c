import { useSyncExternalStore } from "react";

const asked = window.matchMedia("(prefers-reduced-motion: reduce)");

/** Whether the person has asked for pictures that stand still. */
export const useStill = () =>
  useSyncExternalStore(
    (f) => {
      asked.addEventListener("change", f);
      return () => asked.removeEventListener("change", f);
    },
    () => asked.matches,
  );
