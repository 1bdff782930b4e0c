import { useState } from "react";
import { api, Problem } from "../api/client";
import { Button, Caution, Field } from "../parts/controls";
import { useUnits } from "../settings";
import { parseLength, parseNumber } from "../units";
import type { Ready } from "./useBench";

/** What was measured of the finished toy replaces the nominal bends. */
export function MeasuredBends({ ready }: { ready: Ready }) {
  const units = useUnits();
  const { bench, build, setup } = ready;
  const [typed, setTyped] = useState({ left_v: "", right_v: "", left_lip: "", right_lip: "" });
  const [problem, setProblem] = useState<Problem | null>(null);
  const field = (name: keyof typeof typed, label: string, unit: string) => (
    <Field
      label={label}
      unit={unit}
      inputMode="decimal"
      value={typed[name]}
      problem={problem?.field(name)}
      onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
    />
  );
  const take = async () => {
    const measured: Record<string, number> = {};
    for (const [name, text] of Object.entries(typed)) {
      if (text.trim() === "") continue;
      const v = name.endsWith("lip") ? parseLength(text, units) : parseNumber(text.replace("°", ""));
      if (v === undefined) {
        setProblem(
          new Problem(422, "", [
            { location: name, message: `This is “${text}”; write a number such as 1.5.` },
          ]),
        );
        return;
      }
      measured[name] = v;
    }
    try {
      const knobs = await api.measuredBends(build.pattern, setup, measured);
      setProblem(null);
      bench.tryOut({ ...setup, knobs });
      await bench.keep({ ...setup, knobs });
      setTyped({ left_v: "", right_v: "", left_lip: "", right_lip: "" });
    } catch (e) {
      if (e instanceof Problem) setProblem(e);
    }
  };
  return (
    <details>
      <summary>
        <span className="font-semibold">Measured</span>: the V and the tail edges, left and right
      </summary>
      <p className="mt-1 text-sm text-quiet">
        Hold the toy level by its keel and look at it from behind, against the{" "}
        <a
          className="underline underline-offset-4"
          href={`/api/v1/angle-card?units=${units}&page=${units === "in" ? "letter" : "a4"}`}
        >
          angle card
        </a>
        . Left and right are those of somebody who looks the way it flies.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {field("left_v", "Left wing up", "°")}
        {field("right_v", "Right wing up", "°")}
        {field("left_lip", "Left tail edge up", units)}
        {field("right_lip", "Right tail edge up", units)}
      </div>
      {problem && problem.fields.length === 0 && <Caution title="Not taken">{problem.message}</Caution>}
      <Button className="mt-2" onClick={() => void take()}>
        Take what was measured
      </Button>
    </details>
  );
}

/** Shown where edges are curled round a pencil. */
export function PencilCaution() {
  return (
    <p className="mt-2 border-2 border-on-mark bg-caution p-2 text-sm text-on-mark" data-caution="SF03">
      Curling round a pencil: hold it still, its point away from faces.
    </p>
  );
}
