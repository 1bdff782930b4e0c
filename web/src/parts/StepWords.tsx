import type { Step } from "../api/client";
import { useUnits } from "../settings";
import { inUnits } from "../units";
import { DoNow } from "./controls";

/** What to do at a step, and which landmark goes where. */
export function StepWords({ step: s }: { step: Step }) {
  const units = useUnits();
  return (
    <DoNow
      note={
        s.from && (
          <p>
            ◆ {s.from} to ◆ {s.to}
          </p>
        )
      }
    >
      {inUnits(s.say || s.text, units)}
    </DoNow>
  );
}
