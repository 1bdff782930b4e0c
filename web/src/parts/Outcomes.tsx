import type { Outcome } from "../api/client";
import { useUnits } from "../settings";
import { outcomeRange, outcomeValue } from "../units";

/** What trials are predicted to come to, each with its band. */
export function Outcomes({ outcomes }: { outcomes: Outcome[] }) {
  const units = useUnits();
  return (
    <dl
      className="grid grid-cols-2 gap-x-6 gap-y-1 border-t border-line pt-2 sm:grid-cols-4"
      data-outcomes=""
    >
      {outcomes.map((o) => (
        <div key={o.id} data-outcome={o.id}>
          <dt className="text-sm text-quiet">{o.label}, predicted</dt>
          <dd>
            <span className="title text-xl text-lavender">{outcomeValue(o.middle, o, units)}</span>{" "}
            <span className="block text-sm text-quiet">{outcomeRange(o, units)}</span>
          </dd>
        </div>
      ))}
    </dl>
  );
}
