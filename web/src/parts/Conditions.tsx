import { Fragment, memo, useState } from "react";
import { Link } from "react-router";
import type { Condition, Moving } from "../api/client";
import { Check, Choice, Field, Select } from "./controls";
import { useUnits } from "../settings";
import { fromRecordUnit, inRecordUnit, number, parse, recordUnit } from "../units";
import { useConditions, type Conditions as Values } from "./conditions";

/** How and where it is tried. It rests while a dial moves, but for what is left to the toy. */
export const Conditions = memo(
  All,
  (a, b) => a.way === b.way && JSON.stringify(a.offered) === JSON.stringify(b.offered),
);

function All({ way, offered = {} }: { way: Moving; offered?: Values }) {
  const [how, change] = useConditions(way);
  const units = useUnits();
  const groups = [...new Set(way.conditions.map((c) => c.group))];
  return (
    <details data-conditions="">
      <summary>
        <span className="font-semibold">{way.words.conditions}</span>: {summary(way, how, offered, units)}
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
                  offered={offered[c.name]}
                  set={(v) => change({ [c.name]: v })}
                />
              ))}
          </div>
        </Fragment>
      ))}
      <p className="mt-2 text-sm text-quiet">
        An empty field means there is none
        {way.conditions.some((c) => c.own) && ", or that it is left to the toy"}.
      </p>
      <p className="text-sm">
        <Link to={`/not-known/${way.name}`} className="underline underline-offset-4">
          What the model does not know
        </Link>
      </p>
    </details>
  );
}

/** The conditions that say most: the first ones, and what stands in the way. */
function summary(way: Moving, how: Values, offered: Values, units: ReturnType<typeof useUnits>): string {
  const words = (c: Condition) => {
    const set = how[c.name] ?? c.default;
    const v = c.own && set === 0 ? (offered[c.name] ?? 0) : set;
    if (c.own && v === 0) return c.own;
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

interface OneProps {
  c: Condition;
  value: number;
  /** What the toy takes when it is left to it. */
  offered?: number;
  set: (v: number) => void;
}

function One({ c, value, offered, set }: OneProps) {
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
      <Value c={c} value={value} offered={offered} set={set} />
      {says}
    </div>
  );
}

function Value({ c, value, offered, set }: OneProps) {
  const units = useUnits();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const shown = (v: number) => number(inRecordUnit(v, c.unit, units), 2);
  const unit = c.unit === "deg" ? "°" : recordUnit(c.unit, units);
  const take = () => {
    if (typed === null) return;
    const empty = typed.trim() === "" && (c.none || c.own !== undefined);
    const v = empty ? 0 : parse(typed, unit);
    const si = v === undefined ? undefined : fromRecordUnit(v, c.unit, units);
    if (si === undefined || (!empty && (si < c.min - 1e-9 || si > c.max + 1e-9))) {
      setProblem(`${c.label} is “${typed}”; it must be ${shown(c.min)} to ${shown(c.max)} ${unit}.`);
      return;
    }
    setProblem("");
    setTyped(null);
    set(si);
  };
  return (
    <>
      <Field
        label={c.label}
        unit={unit}
        inputMode="decimal"
        value={typed ?? ((c.none || c.own) && value === 0 ? "" : shown(value))}
        placeholder={c.own && offered !== undefined ? shown(offered) : undefined}
        problem={problem}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      {c.own && value === 0 && (
        <p className="mt-1 text-sm">
          {offered !== undefined && (
            <b>
              {shown(offered)} {unit}:{" "}
            </b>
          )}
          {c.own}. Type a number to overrule it.
        </p>
      )}
      {c.own && value !== 0 && (
        <button
          type="button"
          className="mt-1 min-h-11 cursor-pointer text-sm underline underline-offset-4"
          onClick={() => {
            setTyped(null);
            set(0);
          }}
        >
          Leave it to the toy
        </button>
      )}
    </>
  );
}
