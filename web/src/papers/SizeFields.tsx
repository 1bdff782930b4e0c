import { useQuery } from "@tanstack/react-query";
import { type Problem } from "../api/client";
import { question } from "../api/queries";
import { Field } from "../parts/controls";
import { NearSize } from "../parts/NearSize";
import { useUnits } from "../settings";
import { parseLength, sheetSize } from "../units";
import { nearSize, typed, type TypedSize } from "./typedSize";

/** Width and height, and the sizes that have a name. */
export function SizeFields({
  value,
  problem,
  onChange,
}: {
  value: TypedSize;
  problem: Problem | null;
  onChange: (s: TypedSize) => void;
}) {
  const units = useUnits();
  const sizes = useQuery(question.sizes());
  const wrong = (text: string, field: string) =>
    parseLength(text, units) === undefined
      ? `“${text}” is no length; write for example ${units === "mm" ? "210, or 21cm" : "8 1/2, or 210 mm"}`
      : (problem?.field(field) ?? "") || undefined;
  return (
    <div>
      <div className="flex flex-wrap gap-2">
        {sizes.data?.map((z) => {
          const t = typed(z.width_mm, z.height_mm, units);
          return (
            <button
              key={z.id}
              type="button"
              className="min-h-11 border-2 border-ink bg-panel px-3 py-2 text-left hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel"
              aria-pressed={t.width === value.width && t.height === value.height}
              onClick={() => onChange(t)}
            >
              <b>{z.name}</b>{" "}
              <span className="text-sm max-sm:hidden">{sheetSize(z.width_mm, z.height_mm, units)}</span>
            </button>
          );
        })}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3">
        <Field
          label="Width"
          unit={units}
          value={value.width}
          problem={wrong(value.width, "width")}
          onChange={(e) => onChange({ ...value, width: e.target.value })}
        />
        <Field
          label="Height"
          unit={units}
          value={value.height}
          problem={wrong(value.height, "height")}
          onChange={(e) => onChange({ ...value, height: e.target.value })}
        />
      </div>
      <NearSize size={nearSize(value)} onTake={(w, h) => onChange(typed(w, h, units))} />
    </div>
  );
}
