import { useState } from "react";
import { api, Problem } from "../../api/client";
import { useConditions } from "../../parts/conditions";
import type { Ready } from "../frame/useBench";

/** Puts what was measured of the finished toy, by field, into its set-up; true when it is taken. */
export function useMeasured({ bench, build, setup, way }: Ready) {
  const [how] = useConditions(way);
  const [problem, setProblem] = useState<Problem | null>(null);
  const take = async (measured: Record<string, number>): Promise<boolean> => {
    try {
      const knobs = await api.takeMeasured(build.pattern, setup, how, measured);
      setProblem(null);
      await bench.keep({ ...setup, knobs });
      return true;
    } catch (e) {
      if (e instanceof Problem) setProblem(e);
      return false;
    }
  };
  return { take, problem, setProblem };
}
