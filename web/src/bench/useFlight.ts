import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Flight, type Setup } from "../api/client";
import { useThrowing } from "./throwing";
import type { Ready } from "./useBench";

/** The predicted flight of a set-up, with earlier ones as ghosts beside it. */
export function useFlight(ready: Ready, setup: Setup, ghosts: { name: string; setup: Setup }[] = []) {
  const [how] = useThrowing();
  const id = ready.build.pattern;
  // Only set-ups of the same sheet are the same fold.
  const beside = ghosts
    .filter(
      (g) =>
        g.setup.sheet.width_mm === setup.sheet.width_mm && g.setup.sheet.height_mm === setup.sheet.height_mm,
    )
    .map((g) => ({ name: g.name, knobs: g.setup.knobs }));
  const answer = useQuery({
    queryKey: ["flight", id, setup, how, beside],
    queryFn: ({ signal }) => api.fly(id, setup, how, beside, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  // What cannot be folded cannot be thrown: the last flight stays on the mat.
  const [good, setGood] = useState<Flight>();
  if (answer.data && answer.data !== good) setGood(answer.data);
  return { data: answer.data ?? good, error: answer.error };
}
