import type { Step } from "../api/client";
import { inBrief } from "./briefly";
import { DoNow } from "./controls";

/** What to do at a step, and which landmark goes where. */
export function StepWords({ step: s, brief = false }: { step: Step; brief?: boolean }) {
  if (brief) return <DoNow>{inBrief(s)}</DoNow>;
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
      {s.say || s.text}
    </DoNow>
  );
}
