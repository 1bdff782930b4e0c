import { useState } from "react";
import { plainFaces } from "../paper";
import { useUnits } from "../settings";
import { SizeFields } from "./SizeFields";
import { WantFields, WayList, WaySteps } from "./SheetWays";
import { sizeInput, toldIn, typed } from "./typedSize";
import { useWanted } from "./wanted";

/** Getting one sheet out of another, without a build. */
export function GetSheet() {
  const units = useUnits();
  const [entered, setSize] = useState(() => typed(210, 297, units));
  const size = toldIn(entered, units);
  const asked = useWanted(sizeInput(size), 80, 0.1);
  const { way } = asked;
  return (
    <div className="grid gap-8 lg:grid-cols-[26rem_1fr]">
      <div className="space-y-5">
        <SizeFields value={size} problem={null} onChange={setSize} />
        <WantFields asked={asked} />
        <WayList asked={asked} />
      </div>
      <div>{way && <WaySteps way={way} colours={plainFaces} />}</div>
    </div>
  );
}
