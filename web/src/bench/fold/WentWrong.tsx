import { useState } from "react";
import { Select } from "../../parts/controls";
import { useCare, useLook } from "../frame/folding";
import type { Ready } from "../frame/useBench";
import { Mistakes } from "./Mistakes";
import { SlipNote } from "./SlipNote";

/** Where a fault was made: at this step, or at an earlier one that shows only now. */
function useWhere(ready: Ready, step: number) {
  const [chosen, choose] = useState({ seen: step, at: step });
  const at = chosen.seen === step ? chosen.at : step;
  const made = ready.good.steps.filter((s) => s.no <= step && !s.made);
  const where = made.length > 1 && (
    <Select
      label="It went wrong at"
      value={String(at)}
      options={[...made].reverse().map((s) => ({
        value: String(s.no),
        label: s.no === step ? `this step, ${step}` : `step ${s.no}: ${s.title}`,
      }))}
      onChange={(v) => choose({ seen: step, at: Number(v) })}
    />
  );
  return { at, where };
}

/** The likely mistakes of this step, or of an earlier one. */
export function LooksDifferent({ ready, step }: { ready: Ready; step: number }) {
  const { at, where } = useWhere(ready, step);
  const { good } = ready;
  const look = useLook(ready, at, true);
  const right = good.steps[at - 1];
  if (!right) return null;
  return (
    <div className="space-y-3">
      {where}
      <Mistakes
        key={at}
        look={look}
        right={right.after}
        colours={{ front: good.sheet.front, back: good.sheet.back }}
      />
    </div>
  );
}

/** What a fold that went off its place does at the end, here or at an earlier step. */
export function OffItsPlace({ ready, step, onClose }: { ready: Ready; step: number; onClose: () => void }) {
  const { at, where } = useWhere(ready, step);
  const care = useCare(ready)[at - 1];
  return (
    <div className="space-y-3">
      {where}
      {care?.made ? (
        <SlipNote key={at} ready={ready} step={at} onClose={onClose} />
      ) : (
        <p>No crease is made at this step that could lie off its place.</p>
      )}
    </div>
  );
}
