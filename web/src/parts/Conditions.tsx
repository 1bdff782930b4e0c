import { Fragment, memo, useState } from "react";
import { Link } from "react-router";
import type { Condition, Moving } from "../api/client";
import { Check, Choice, Field, Select } from "./controls";
import { useUnits } from "../settings";
import { fromRecordUnit, inRecordUnit, number, parseNumber, recordUnit } from "../units";
import { useConditions, type Conditions as Values } from "./conditions";

/** How and where it is tried. It rests while a dial moves. */
export const Conditions = memo(All);

function All({ way }: { way: Moving }) {
  const [how, change] = useConditions(way);
  const units = useUnits();
  const groups = [...new Set(way.conditions.map((c) => c.group))];
  return (
    <details data-conditions="">
      <summary>
        <span className="font-semibold">{way.words.conditions}</span>: {summary(way, how, units)}
      </summary>
      {groups.map((g) => (
        <Fragment key={g}>
          <h3 className="mt-3 text-base">{g}</h3>
          <div className="mt-1 grid grid-cols-2 items-start gap-3">
            {way.conditions
              .filter((c) => c.group === g)
              .map((c) => (
                <One
                  key={c.name}
                  c={c}
                  value={how[c.name] ?? c.default}
                  set={(v) => change({ [c.name]: v })}
                />
              ))}
          </div>
        </Fragment>
      ))}
      <p className="mt-2 text-sm text-quiet">An empty field means there is none.</p>
      <p className="text-sm">
        <Link to={`/not-known/${way.name}`} className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
    </details>
  );
}

/** The conditions that say most: the first ones, and what stands in the way. */
function summary(way: Moving, how: Values, units: ReturnType<typeof useUnits>): string {
  const words = (c: Condition) => {
    const v = how[c.name] ?? c.default;
    const option = c.options.find((o) => o.value === v);
    if (option) return option.label;
    const shown = number(inRecordUnit(v, c.unit, units), 2);
    return c.unit === "deg" ? `${shown}°` : `${shown} ${recordUnit(c.unit, units)}`;
  };
  const first = way.conditions.slice(0, 2).map(words);
  const there = way.conditions
    .slice(2)
    .filter((c) => c.none && (how[c.name] ?? 0) !== 0)
    .map((c) => `${c.label.toLowerCase()} ${words(c)}`);
  return [...first, ...there].join(", ");
}

function One({ c, value, set }: { c: Condition; value: number; set: (v: number) => void }) {
  const says = c.says && <p className="mt-1 text-sm text-quiet">{c.says}</p>;
  if (c.check) {
    return (
      <div className="col-span-2">
        <Check checked={value === 1} onChange={(v) => set(v ? 1 : 0)}>
          {c.label}
        </Check>
        {says}
      </div>
    );
  }
  if (c.options.length > 2) {
    const chosen = c.options.find((o) => o.value === value);
    return (
      <div className="col-span-2">
        <Select
          label={c.label}
          value={String(value)}
          options={c.options.map((o) => ({ value: String(o.value), label: o.label }))}
          onChange={(v) => set(Number(v))}
        />
        {chosen?.says && <p className="mt-1 text-sm text-quiet">{chosen.says}</p>}
        {says}
      </div>
    );
  }
  if (c.options.length > 0) {
    return (
      <div className="col-span-2">
        <Choice
          label={c.label}
          value={String(value)}
          options={c.options.map((o) => ({ value: String(o.value), label: o.label }))}
          onChange={(v) => set(Number(v))}
        />
        {says}
      </div>
    );
  }
  return (
    <div>
      <Value c={c} value={value} set={set} />
      {says}
    </div>
  );
}

function Value({ c, value, set }: { c: Condition; value: number; set: (v: number) => void }) {
  const units = useUnits();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const shown = (v: number) => number(inRecordUnit(v, c.unit, units), 2);
  const unit = c.unit === "deg" ? "°" : recordUnit(c.unit, units);
  const take = () => {
    if (typed === null) return;
    const v = typed.trim() === "" && c.none ? 0 : parseNumber(typed);
    const si = v === undefined ? undefined : fromRecordUnit(v, c.unit, units);
    if (si === undefined || si < c.min - 1e-9 || si > c.max + 1e-9) {
      setProblem(`${c.label} is “${typed}”; it must be ${shown(c.min)} to ${shown(c.max)} ${unit}.`);
      return;
    }
    setProblem("");
    setTyped(null);
    set(si);
  };
  return (
    <Field
      label={c.label}
      unit={unit}
      inputMode="decimal"
      value={typed ?? (c.none && value === 0 ? "" : shown(value))}
      problem={problem}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === "Enter" && take()}
    />
  );
}
