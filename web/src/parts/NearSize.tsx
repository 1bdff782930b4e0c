import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type SizeInput } from "../api/client";
import { question } from "../api/queries";
import { useUnits } from "../settings";
import { sheetSize } from "../units";
import { Button } from "./controls";

/** A typed size near a known one is asked about; the answer "no" is remembered. */
export function NearSize({
  size,
  onTake,
}: {
  size: SizeInput | undefined;
  onTake: (widthMM: number, heightMM: number) => void;
}) {
  const units = useUnits();
  const [kept, setKept] = useState("");
  const key = JSON.stringify(size);
  const near = useQuery(question.near(size));
  if (!size || !near.data || near.data.length === 0 || kept === key) return null;
  return (
    <div role="status" className="mt-2 border-2 border-on-mark bg-caution p-3 text-on-mark">
      <p className="font-semibold">Is that a known size, rounded?</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {near.data.slice(0, 2).map((m) => (
          <Button key={m.name} onClick={() => onTake(m.width_mm, m.height_mm)}>
            {m.name}, {sheetSize(m.width_mm, m.height_mm, units)}
          </Button>
        ))}
        <Button onClick={() => setKept(key)}>No, as typed</Button>
      </div>
    </div>
  );
}
