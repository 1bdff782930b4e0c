import type { Prediction, Setup } from "../../api/client";
import { Button } from "../../parts/controls";
import type { Ready } from "../frame/useBench";

/** What to look at before it is tried: whether it is right, why, and what puts it right. */
export function Checks({ ready, checks }: { ready: Ready; checks: Prediction["checks"] }) {
  const { bench, setup } = ready;
  if (checks.length === 0) return null;
  const put = (changes: Prediction["checks"][number]["fix"]) => {
    const next: Setup = {
      ...setup,
      knobs: { ...setup.knobs, ...Object.fromEntries(changes.map((c) => [c.knob, c.to])) },
    };
    void bench.keep(next);
  };
  return (
    <section aria-label="Checks">
      <h3 className="text-lg">Checks</h3>
      <ul>
        {checks.map((c) => (
          <li key={c.id} className="border-t border-line py-2" data-check={c.id} data-ok={c.ok}>
            <p>
              <span className={c.ok ? "text-tide" : "bg-caution px-1 text-on-mark"}>
                {c.ok ? "✓" : "look here"}
              </span>{" "}
              <b>{c.title}</b>: {c.says}
            </p>
            {!c.ok && c.fix.length > 0 && (
              <Button className="mt-1" onClick={() => put(c.fix)}>
                {c.do ?? "Put it right"}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
