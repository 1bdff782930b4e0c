import { useState } from "react";
import { usePlainPaper } from "../paper";
import { PrintLinks } from "../parts/PrintLinks";
import { useUnits } from "../settings";
import { SizeFields } from "./SizeFields";
import { WantFields, WayList, WaySteps } from "./SheetWays";
import { sizeInput, toldIn, typed } from "./typedSize";
import { useWanted } from "./wanted";

/** Getting one sheet out of another, without a build. */
export function GetSheet() {
  const plain = usePlainPaper();
  const units = useUnits();
  const [entered, setSize] = useState(() => typed(210, 297, units));
  const size = toldIn(entered, units);
  const have = sizeInput(size);
  const asked = useWanted(have, 80, 0.1);
  const { way } = asked;
  return (
    <div className="grid gap-8 lg:grid-cols-[26rem_1fr]">
      <div className="space-y-5">
        <SizeFields value={size} problem={null} onChange={setSize} />
        <WantFields asked={asked} />
        <WayList asked={asked} />
      </div>
      <div className="space-y-6">
        {way && <WaySteps way={way} colours={plain} />}
        {asked.want?.kind === "ngon" && asked.ways?.largest_mm && have ? (
          <PrintLinks outline={{ width: have.width, height: have.height, n: asked.want.n ?? 0 }} />
        ) : (
          way && <PrintLinks outline={{ width: way.width_mm, height: way.height_mm }} />
        )}
      </div>
    </div>
  );
}
