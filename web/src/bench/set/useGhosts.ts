import type { Setup } from "../../api/client";
import type { Ready } from "../frame/useBench";

/** The set-ups of the last tweaks, to draw beside the one on the table. */
export function useGhosts(ready: Ready): { name: string; setup: Setup }[] {
  const { build, setup } = ready;
  return build.tweaks
    .slice(-3)
    .filter((t) => JSON.stringify(t.setup.knobs) !== JSON.stringify(setup.knobs))
    .map((t) => ({ name: `tweak ${t.no}`, setup: t.setup }));
}
