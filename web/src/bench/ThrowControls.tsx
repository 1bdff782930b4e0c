import { useState } from "react";
import { Link } from "react-router";
import { Check, Choice, Field } from "../parts/controls";
import { useUnits } from "../settings";
import { fromHallUnit, hallUnit, inHallUnit, number, parseNumber } from "../units";
import { useThrowing } from "./throwing";

/** How and where it is thrown. */
export function ThrowControls() {
  const [how, change] = useThrowing();
  const units = useUnits();
  const t = how.throw;
  const room = how.room;
  const metres = (v: number | undefined) => (v ? number(inHallUnit(v, units)) : "");
  return (
    <details data-throwing="">
      <summary>
        <span className="font-semibold">The throw and the hall</span>: {number(t.speed_ms)} m/s,{" "}
        {number(t.angle_deg)}°{room.length_m ? ", a hall" : ", no walls"}
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3">
        <Value
          label="Speed"
          unit="m/s"
          value={number(t.speed_ms)}
          lo={0.5}
          hi={30}
          set={(v) => change({ throw: { ...t, speed_ms: v } })}
        />
        <Value
          label="Angle, up"
          unit="°"
          value={number(t.angle_deg)}
          lo={-60}
          hi={85}
          set={(v) => change({ throw: { ...t, angle_deg: v } })}
        />
        <Value
          label="Height of the hand"
          unit={hallUnit(units)}
          value={metres(t.height_m)}
          lo={inHallUnit(0.1, units)}
          hi={inHallUnit(20, units)}
          set={(v) => change({ throw: { ...t, height_m: fromHallUnit(v, units) } })}
        />
        <Value
          label="Bank, right"
          unit="°"
          value={number(t.bank_deg)}
          lo={-90}
          hi={90}
          set={(v) => change({ throw: { ...t, bank_deg: v } })}
        />
      </div>
      <p className="mt-2 text-sm text-quiet">
        A gentle throw is 4 to 6 m/s, a hard one 10 to 15. An empty field means there is none.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {(
          [
            ["length_m", "Wall ahead", 500],
            ["width_m", "Width of the hall", 200],
            ["ceiling_m", "Ceiling", 60],
            ["rope_at_m", "Rope ahead", 200],
            ["rope_m", "Height of the rope", 20],
          ] as const
        ).map(([key, label, hi]) => (
          <Value
            key={key}
            label={label}
            unit={hallUnit(units)}
            value={metres(room[key])}
            lo={0}
            hi={inHallUnit(hi, units)}
            empty
            set={(v) => change({ room: { ...room, [key]: fromHallUnit(v, units) } })}
          />
        ))}
      </div>
      <div className="mt-3">
        <Choice<"adult" | "child">
          label="Whose hand"
          value={how.hand}
          options={[
            { value: "adult", label: "an adult's" },
            { value: "child", label: "a child's" },
          ]}
          onChange={(hand) => change({ hand })}
        />
      </div>
      <Check checked={how.softening} onChange={(softening) => change({ softening })}>
        Bent edges give way at speed (a guess)
      </Check>
      <p className="text-sm">
        <Link to="/not-known/fly" className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
    </details>
  );
}

function Value({
  label,
  unit,
  value,
  lo,
  hi,
  empty,
  set,
}: {
  label: string;
  unit: string;
  value: string;
  lo: number;
  hi: number;
  empty?: boolean;
  set: (v: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const take = () => {
    if (typed === null) return;
    const v = typed.trim() === "" && empty ? 0 : parseNumber(typed);
    if (v === undefined || v < lo - 1e-9 || v > hi + 1e-9) {
      setProblem(`${label} is “${typed}”; it must be ${number(lo)} to ${number(hi)} ${unit}.`);
      return;
    }
    setProblem("");
    setTyped(null);
    set(v);
  };
  return (
    <Field
      label={label}
      unit={unit}
      inputMode="decimal"
      value={typed ?? value}
      problem={problem}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === "Enter" && take()}
    />
  );
}
