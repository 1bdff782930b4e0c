import { useState } from "react";
import { Problem } from "../../api/client";
import { Button, Caution, Field } from "../../parts/controls";
import { useUnits } from "../../settings";
import { parse, parseLength } from "../../units";
import type { Ready } from "../frame/useBench";
import { useMeasured } from "./useMeasured";

/** What was measured of the finished toy replaces what was meant. */
export function Measured({ ready }: { ready: Ready }) {
  const units = useUnits();
  const { way } = ready;
  const [typed, setTyped] = useState<Record<string, string>>({});
  const { take: keep, problem, setProblem } = useMeasured(ready);
  const { asked } = way;
  if (!asked || asked.on_mat) return null;
  const take = async () => {
    const measured: Record<string, number> = {};
    for (const f of asked.fields) {
      const text = typed[f.name] ?? "";
      if (text.trim() === "") continue;
      const v = f.unit === "mm" ? parseLength(text, units) : parse(text, "°");
      if (v === undefined) {
        setProblem(
          new Problem(422, "", [
            { location: f.name, message: `This is “${text}”; write a number such as 1.5.` },
          ]),
        );
        return;
      }
      measured[f.name] = v;
    }
    if (await keep(measured)) setTyped({});
  };
  return (
    <details>
      <summary>
        <span className="font-semibold">Measured</span>: {asked.title}
      </summary>
      <p className="mt-1 text-sm text-quiet">
        {asked.how}{" "}
        {asked.card_name && (
          <a className="underline underline-offset-4" href={`/api/v1/moves/${way.name}/card?units=${units}`}>
            {asked.card_name}
          </a>
        )}
      </p>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {asked.fields.map((f) => (
          <Field
            key={f.name}
            label={f.label}
            unit={f.unit === "mm" ? units : "°"}
            inputMode="decimal"
            value={typed[f.name] ?? ""}
            problem={problem?.field(f.name)}
            onChange={(e) => setTyped({ ...typed, [f.name]: e.target.value })}
          />
        ))}
      </div>
      {problem && problem.fields.length === 0 && <Caution title="Not taken">{problem.message}</Caution>}
      <Button className="mt-2" onClick={() => void take()}>
        Take what was measured
      </Button>
    </details>
  );
}
