import { Check, Select } from "../../parts/controls";
import { useSeeing } from "../frame/folding";

/** Mirror view, the way the flap moves, hidden layers, few words. */
export function SeeingChoice() {
  const [see, change] = useSeeing();
  return (
    <div role="group" aria-label="How steps are shown" className="flex flex-wrap items-end gap-x-4">
      <Check checked={see.mirror} onChange={(mirror) => change({ mirror })}>
        mirror image
      </Check>
      <Check checked={see.xray} onChange={(xray) => change({ xray })}>
        hidden edges
      </Check>
      <Check checked={see.parts} onChange={(parts) => change({ parts })}>
        lengths as parts of the sheet
      </Check>
      <Check checked={see.brief} onChange={(brief) => change({ brief })}>
        few words
      </Check>
      <Select
        label="Folds go"
        value={see.turn}
        options={[
          { value: "drawn", label: "as drawn" },
          { value: "away", label: "away from me" },
          { value: "toward", label: "towards me" },
        ]}
        onChange={(turn) => change({ turn })}
      />
    </div>
  );
}
