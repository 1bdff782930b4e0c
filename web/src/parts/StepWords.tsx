import type { Step } from "../api/client";
import { useUnits } from "../settings";
import { inUnits } from "../units";
import { inBrief } from "./briefly";
import { DoNow } from "./controls";

/** What to do at a step, and which landmark goes where. */
export function StepWords({ step: s, brief = false }: { step: Step; brief?: boolean }) {
  const units = useUnits();
  if (brief) return <DoNow>{inUnits(inBrief(s), units)}</DoNow>;
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
