import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Prediction, type Setup } from "../../api/client";
import { question } from "../../api/queries";
import { useConditions } from "../../parts/conditions";
import type { Ready } from "./useBench";

/** How a set-up is predicted to move, with earlier ones as ghosts beside it. */
export function usePrediction(ready: Ready, setup: Setup, ghosts: { name: string; setup: Setup }[] = []) {
  const [how] = useConditions(ready.way);
  const id = ready.build.pattern;
  // Only set-ups of the same sheet are the same fold.
  const beside = ghosts
    .filter(
      (g) =>
        g.setup.sheet.width_mm === setup.sheet.width_mm && g.setup.sheet.height_mm === setup.sheet.height_mm,
    )
    .map((g) => ({ name: g.name, knobs: g.setup.knobs }));
  const answer = useQuery(question.prediction(id, setup, how, beside));
  // What cannot be folded cannot be tried: the last picture stays on the mat.
  const [good, setGood] = useState<Prediction>();
  if (answer.data && answer.data !== good) setGood(answer.data);
  return { data: answer.data ?? good, error: answer.error };
}
