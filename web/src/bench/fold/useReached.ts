import { useEffect } from "react";
import { api } from "../../api/client";
import type { Ready } from "../frame/useBench";

/**
 * Keeps how far a build is folded: a step that is looked at has its predecessors behind
 * it; the last counts when the person goes on to the set-up.
 */
export function useReached({ build, bench }: Ready, step: number) {
  const reached = step - 1;
  const { change } = bench;
  useEffect(() => {
    if (reached > build.step) void change(api.keepStep(build.id, reached));
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new step counts
  }, [reached, build.id]);
}
