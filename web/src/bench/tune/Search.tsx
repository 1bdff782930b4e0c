import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, Problem, type Moving, type Optimum, type SearchProgress, type Setup } from "../../api/client";
import { question } from "../../api/queries";
import { Button, Caution, Check, Field, Select } from "../../parts/controls";
import { useUnits } from "../../settings";
import {
  fromRecordUnit,
  inRecordUnit,
  knobValue,
  lengthValue,
  number,
  dialled,
  parse,
  recordUnit,
  recordValue,
} from "../../units";
import { useConditions } from "../../parts/conditions";
import type { Ready } from "../frame/useBench";

/** Something typed that cannot be read. */
class Refused extends Error {}

/** Searches a set-up for an aim over chosen knobs. */
export function Search({ ready, setup }: { ready: Ready; setup: Setup }) {
  const units = useUnits();
  const { bench, build, way } = ready;
  const [how, change] = useConditions(way);
  const [aim, setAim] = useState(way.aims[0]?.name ?? "");
  const chosen = way.aims.find((a) => a.name === aim);
  const aimUnit = chosen?.unit ?? "m";
  const [typedAt, setAt] = useState<string | null>(null);
  const at = typedAt ?? number(inRecordUnit(chosen?.first ?? 0, aimUnit, units));
  const [wanted, setFree] = useState<string[]>(way.free);
  const [bounds, setBounds] = useState<Record<string, [string, string]>>({});
  const [progress, setProgress] = useState<SearchProgress | null>(null);
  const [found, setFound] = useState<Optimum | null>(null);
  const [problem, setProblem] = useState("");
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const levers = useQuery(question.levers(build.pattern, setup, how));
  // A pattern need not have all the knobs that are usual.
  const free = levers.data ? wanted.filter((n) => levers.data.some((l) => l.name === n)) : wanted;
  const start = async () => {
    const call = new AbortController();
    running.current = call;
    setFound(null);
    setProblem("");
    setProgress({ done: 0, of: 1, best: 0 });
    try {
      const bad = (field: string, text: string) => {
        throw new Refused(`${field} is “${text}”; write a number, for example 7.4.`);
      };
      const levels = free.map((name) => {
        const [lo, hi] = bounds[name] ?? ["", ""];
        // Lengths are typed in the person's unit.
        const lever = levers.data?.find((l) => l.name === name);
        const read = (t: string) => {
          const v = dialled(t, lever?.unit ?? "", units);
          if (v === undefined && t.trim() !== "") bad(`The bound of ${lever?.label ?? name}`, t);
          return v;
        };
        const [min, max] = [read(lo), read(hi)];
        return { name, ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
      });
      const typed = parse(at, recordUnit(aimUnit, units));
      if (chosen?.at && typed === undefined) bad(chosen.at, at);
      const metres = fromRecordUnit(typed ?? 0, aimUnit, units);
      setFound(
        await api.optimise(
          build.pattern,
          setup,
          chosen?.child ? { ...how, hand: 1 } : how,
          { aim, at: chosen?.at ? metres : 0, levers: levels },
          call.signal,
          setProgress,
        ),
      );
    } catch (e) {
      if (!(e instanceof DOMException))
        setProblem(e instanceof Problem || e instanceof Refused ? e.message : "The search failed.");
    } finally {
      setProgress(null);
      running.current = null;
    }
  };
  const take = async (o: Optimum) => {
    const next = { ...setup, knobs: { ...setup.knobs, ...o.knobs } };
    change(o.conditions);
    if (!(await bench.keep(next))) return;
    const hard = o.needs_sheet && build.trials > 0;
    if (!hard && o.changes.some((c) => !c.lever.trial)) {
      const why = `Searched for: ${chosen?.label ?? aim}. ${o.changes.map((c) => `${c.lever.label} ${knobValue(c.to, c.lever.unit, units)}`).join(", ")}`;
      await bench.settle(why);
    }
    setFound(null);
  };
  return (
    <div className="flex flex-col gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <Select
          label="Aim"
          value={aim}
          options={way.aims.map((a) => ({ value: a.name, label: a.label }))}
          onChange={(a) => {
            setAim(a);
            setAt(null);
          }}
        />
        {chosen?.at && (
          <Field
            label={chosen.at}
            unit={recordUnit(aimUnit, units)}
            inputMode="decimal"
            value={at}
            onChange={(e) => setAt(e.target.value)}
          />
        )}
      </div>
      <fieldset>
        <legend className="text-sm font-semibold">
          May be moved, and within which bounds (empty: its whole range)
        </legend>
        <div className="grid sm:grid-cols-2 sm:gap-x-6">
          {(levers.data ?? []).map((l) => {
            const on = free.includes(l.name);
            const [lo, hi] = bounds[l.name] ?? ["", ""];
            const bound = (k: 0 | 1, v: string) =>
              setBounds({ ...bounds, [l.name]: k === 0 ? [v, hi] : [lo, v] });
            return (
              <div key={l.name} className="border-t border-line py-1">
                <Check
                  checked={on}
                  onChange={(v) => setFree(v ? [...free, l.name] : free.filter((n) => n !== l.name))}
                >
                  <span>
                    {l.label}, now {knobValue(l.value, l.unit, units)}
                    {l.hard && <span className="text-sm text-quiet"> (a fold)</span>}
                  </span>
                </Check>
                {on && (
                  <span className="flex items-center gap-2 pb-1 pl-7 text-sm">
                    from
                    <input
                      aria-label={`${l.label}, least`}
                      className="w-20 border border-ink bg-panel px-2 py-1"
                      placeholder={l.unit === "mm" ? lengthValue(l.min, units) : number(l.min)}
                      value={lo}
                      onChange={(e) => bound(0, e.target.value)}
                    />
                    to
                    <input
                      aria-label={`${l.label}, most`}
                      className="w-20 border border-ink bg-panel px-2 py-1"
                      placeholder={l.unit === "mm" ? lengthValue(l.max, units) : number(l.max)}
                      value={hi}
                      onChange={(e) => bound(1, e.target.value)}
                    />
                    {l.unit === "deg" ? "°" : l.unit === "mm" ? units : l.unit}
                  </span>
                )}
              </div>
            );
          })}
        </div>
      </fieldset>
      {progress ? (
        <div className="flex items-center gap-3">
          <progress
            className="h-4 grow accent-ink"
            value={progress.done}
            max={progress.of}
            aria-label="Set-ups tried"
          />
          <span className="text-sm whitespace-nowrap">
            {progress.done} of {progress.of} tried
          </span>
          <Button onClick={() => running.current?.abort()}>Call it off</Button>
        </div>
      ) : (
        <Button
          weight="main"
          className="self-start"
          disabled={free.length === 0 || free.length > 8}
          onClick={() => void start()}
        >
          Search
        </Button>
      )}
      {free.length > 8 && <p className="text-sm">At most eight knobs at once.</p>}
      {problem && <Caution title="No answer">{problem}</Caution>}
      {found && (
        <Result
          found={found}
          way={way}
          even={levers.data?.some((l) => l.even) ?? false}
          onTake={() => void take(found)}
          tweak={build.tweaks.length + 1}
        />
      )}
    </div>
  );
}

function Result({
  found,
  way,
  even,
  onTake,
  tweak,
}: {
  found: Optimum;
  way: Moving;
  even: boolean;
  onTake: () => void;
  tweak: number;
}) {
  const units = useUnits();
  if (found.nothing_to_gain) {
    return (
      <p className="title text-xl">
        Nothing to gain: tried afresh, no set-up within these bounds is predicted to do better.
      </p>
    );
  }
  const shown = way.measures.filter((g) => g.shown);
  const [main, ...others] = shown;
  const of = (m: Record<string, number> | undefined, g: (typeof shown)[number] | undefined) =>
    g && m?.[g.name] !== undefined ? recordValue(m[g.name] ?? 0, g.unit, units) : "–";
  const gain = (v: number) => recordValue(v, found.gauge.unit, units);
  const rest = (m: Record<string, number> | undefined) =>
    others.map((g) => `${g.name} ${of(m, g)}`).join(", ");
  return (
    <section aria-label="Result of the search" className="border-2 border-dotted border-lavender p-3">
      <p className="text-sm font-semibold text-lavender">
        predicted, the middle of fresh {way.words.many} that nothing was chosen by; {found.tried} set-ups
        tried
      </p>
      <p>
        <span className="figure text-4xl">{of(found.after, main)}</span>{" "}
        <span className="title">
          {main?.name}, {rest(found.after)}
        </span>
      </p>
      <p className="text-quiet">
        Now {of(found.before, main)}, {rest(found.before)}.
      </p>
      {found.gain.middle > 0 && (
        <p>
          <b>
            {found.gauge.less ? "Less" : "Gained"}: {gain(found.gain.middle)}
          </b>{" "}
          {found.gauge.name}, {way.words.one} against {way.words.one}; in eight of ten {gain(found.gain.lo)}{" "}
          to {gain(found.gain.hi)}.
        </p>
      )}
      <ul className="mt-2 space-y-1">
        {found.changes.map((c) => (
          <li key={c.lever.name}>
            <b>
              {c.lever.label} {knobValue(c.from, c.lever.unit, units)} →{" "}
              {knobValue(c.to, c.lever.unit, units)}
            </b>
            <span className="block text-sm text-quiet">
              Without this change: {of(c.without, main)}, {rest(c.without)}.
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-quiet">
        Changes that bring next to nothing were taken back{even && ", and left and right are kept alike"}.
        {found.needs_sheet && " A fold changes: once tried, that is a child build on a new sheet."}
      </p>
      <Button weight="main" className="mt-2" onClick={onTake}>
        {found.needs_sheet ? "Set it so" : `Make it tweak ${tweak}`}
      </Button>
    </section>
  );
}
