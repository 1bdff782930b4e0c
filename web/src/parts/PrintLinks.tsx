import { useState } from "react";
import { useUnits } from "../settings";
import { Check, Choice } from "./controls";

type Printer = "auto" | "a4" | "letter" | "own";
type Face = "none" | "front" | "back" | "both";

/** True-size prints of a build's sheet, or of an outline. */
export function PrintLinks({
  build,
  unprinted = "",
  outline,
}: {
  build?: number;
  /** Letters of its name that a PDF lacks. */
  unprinted?: string;
  outline?: Record<string, number>;
}) {
  const units = useUnits();
  const [page, setPage] = useState<Printer>("auto");
  const [face, setFace] = useState<Face>(build === undefined ? "none" : "front");
  const [young, setYoung] = useState(false);
  const link = (format: "pdf" | "svg") => {
    const query = new URLSearchParams({
      format,
      page,
      face,
      units,
      ...(young && face !== "none" ? { band_mm: "2" } : {}),
      ...Object.fromEntries(Object.entries(outline ?? {}).map(([k, v]) => [k, String(v)])),
    });
    return `${build === undefined ? "/api/v1/outlines" : `/api/v1/builds/${build}/print`}?${query}`;
  };
  const look = "flex min-h-11 items-center border-2 border-ink bg-panel px-4 font-semibold hover:bg-ground";
  return (
    <section aria-labelledby="prints" className="space-y-3">
      <h2 id="prints" className="text-xl">
        Print it at true size
      </h2>
      <Choice
        label="Paper in the printer"
        value={page}
        options={[
          { value: "auto", label: "as set" },
          { value: "a4", label: "A4" },
          { value: "letter", label: "Letter" },
          { value: "own", label: build === undefined ? "a sheet of this size" : "the sheet itself" },
        ]}
        onChange={setPage}
      />
      {build !== undefined && (
        <Choice<Face>
          label="Folds as guide lines"
          value={face}
          options={[
            { value: "none", label: "none" },
            { value: "front", label: "front" },
            { value: "back", label: "back" },
            { value: "both", label: "both" },
          ]}
          onChange={setFace}
        />
      )}
      {build !== undefined && face !== "none" && (
        <Check checked={young} onChange={setYoung}>
          with bands for young folders: within them the fold is good
        </Check>
      )}
      <div className="flex gap-2">
        <a className={look} href={link("pdf")} target="_blank" rel="noreferrer">
          PDF
        </a>
        <a className={look} href={link("svg")} download>
          SVG
        </a>
      </div>
      {unprinted && (
        <p className="bg-caution px-2 py-1 text-sm text-on-mark">
          The PDF lacks the letters {unprinted} of the name and has boxes for them. The SVG has it whole.
        </p>
      )}
      <p className="text-sm text-quiet">
        Print at 100 %, without fitting to the page, and measure the check line before you cut. What is larger
        than the page goes over several, with signs to lay on one another. As set: as your settings say, else
        the paper that goes with the sheet. A sheet that goes through the printer itself carries its guide
        lines alone, on one page for each face; measure from cross to cross.
      </p>
    </section>
  );
}
