import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import type { Moving, Problem, Stats, Trial, TrialInput, TrialKind, TrialRecord } from "../../api/client";
import { freshKey } from "../../api/page";
import { useShortcuts } from "../../keys";
import { Button, Choice, Field, Select } from "../../parts/controls";
import { useUnits } from "../../settings";
import {
  fromRecordUnit,
  inRecordUnit,
  number,
  parse,
  recordUnit,
  recordValue,
  type Units,
} from "../../units";
import { ClockFace } from "../../parts/ClockFace";
import { CautionsAt } from "../frame/CautionsAt";
import { logged, useConditions } from "../../parts/conditions";
import { Stopwatch } from "./Stopwatch";

interface Draft {
  /** Readings as typed, by id; those with sides without their sign. */
  read: Record<string, string>;
  /** Which side, by id: true is the positive one. */
  plus: Record<string, boolean>;
  seen: string[];
  thrower: string;
  place: string;
  air: string;
  note: string;
}

const shown = (v: number, r: TrialRecord, units: Units) =>
  number(inRecordUnit(r.sides.length > 0 ? Math.abs(v) : v, r.unit, units), 2).replace("−", "-");

function draftOf(t: TrialInput, way: Moving, units: Units): Draft {
  const read: Record<string, string> = {};
  const plus: Record<string, boolean> = {};
  for (const r of way.records) {
    const v = t.read?.[r.id];
    read[r.id] = v === undefined ? "" : shown(v, r, units);
    plus[r.id] = (v ?? 0) >= 0;
  }
  return {
    read,
    plus,
    seen: t.seen ?? [],
    thrower: t.thrower ?? "",
    place: t.place ?? "",
    air: t.air ?? "",
    note: t.note ?? "",
  };
}

/** Readings with those taken out that are of one trial only. */
function emptied(read: Record<string, string>, way: Moving): Record<string, string> {
  const once = new Set(way.records.filter((r) => !r.kept).map((r) => r.id));
  return Object.fromEntries(Object.entries(read).map(([id, t]) => [id, once.has(id) ? "" : t]));
}

const sameRead = (a: Record<string, string>, b: Record<string, string>) =>
  Object.entries(a).every(([id, t]) => t === b[id]);

/** Whether nothing was noted but readings. */
const isBare = (d: Draft) => d.seen.length === 0 && d.note === "";

/** Round values near the usual one, for logging with two taps. */
function near(r: TrialRecord, stats: Stats | undefined, units: Units): number[] {
  if (r.usual.length > 0) return r.usual;
  const usual: Record<string, [number, number]> =
    units === "mm" ? { m: [5, 1], cm: [15, 5] } : { m: [16, 2], cm: [6, 2] };
  const [first, step] = usual[r.unit] ?? [2, 1];
  const middle =
    stats && stats.n > 0 ? Math.round(inRecordUnit(stats.median, r.unit, units) / step) * step : first;
  const from = Math.max(step, middle - 2 * step);
  return [0, 1, 2, 3, 4].map((i) => from + i * step);
}

/** Letters that are neither a shortcut of the bench nor begin a unit of length. */
const free = Array.from("adeghjkoqvwxy");

/** A key for each chip: a letter of its own word where one is free. */
function keysOf(chips: string[]): Map<string, string> {
  const left = new Set(free);
  const out = new Map<string, string>();
  const give = (chip: string, letters: Iterable<string>) => {
    const key = [...letters].find((l) => left.has(l));
    if (key === undefined || out.has(chip)) return;
    left.delete(key);
    out.set(chip, key);
  };
  for (const c of chips) give(c, c.slice(0, 1));
  for (const c of chips) give(c, c);
  for (const c of chips) give(c, free);
  return out;
}

/** A word with its key marked in it, or before it. */
function Lettered({ word, letter }: { word: string; letter: string | undefined }) {
  if (letter === undefined) return word;
  const at = word.indexOf(letter);
  if (at < 0)
    return (
      <span
        data-key={letter}
        className="before:mr-1 before:font-bold before:underline before:content-[attr(data-key)/''] max-lg:before:hidden"
      >
        {word}
      </span>
    );
  return (
    <>
      {word.slice(0, at)}
      <kbd className="font-[inherit] underline decoration-2 underline-offset-4 max-lg:no-underline">
        {letter}
      </kbd>
      {word.slice(at + 1)}
    </>
  );
}

/** Log a trial, or correct one. Typing a digit anywhere starts with the reading that counts. */
export function TrialForm({
  way,
  kind,
  onKind,
  conditions,
  stats,
  editing,
  problem,
  face,
  onSave,
  onCancel,
}: {
  way: Moving;
  kind: TrialKind | undefined;
  onKind: (name: string) => void;
  conditions: TrialInput;
  stats: Record<string, Stats> | undefined;
  editing: Trial | null;
  problem: Problem | null;
  /** The toy, to lie under a clock. */
  face?: ReactNode;
  /** The same trial sent twice has one key and is logged once; sure: it was asked about. */
  onSave: (t: TrialInput, sent: { key: string; sure: boolean }) => Promise<boolean>;
  onCancel: () => void;
}) {
  const units = useUnits();
  const [how] = useConditions(way);
  const [draft, setDraft] = useState(() => draftOf(editing ?? conditions, way, units));
  const [own, setOwn] = useState<{ field: string; message: string } | null>(null);
  const mainField = useRef<HTMLDivElement>(null);
  const sending = useRef(0);
  const failed = useRef<{ text: string; key: string } | null>(null);
  const set = (part: Partial<Draft>) => {
    setOwn(null);
    setDraft((d) => ({ ...d, ...part }));
  };
  const typed = (id: string, v: string) => set({ read: { ...draft.read, [id]: v } });
  const [usedUnits, setUsedUnits] = useState(units);
  if (usedUnits !== units) {
    // What was typed keeps its meaning when the units are switched.
    const read = Object.fromEntries(
      way.records.map((r) => {
        const t = draft.read[r.id] ?? "";
        const v = parse(t, recordUnit(r.unit, usedUnits));
        return [r.id, v === undefined ? t : shown(fromRecordUnit(v, r.unit, usedUnits), r, units)];
      }),
    );
    setUsedUnits(units);
    setDraft((d) => ({ ...d, read }));
  }
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.matches("input, textarea, select, [role=slider]");
      if (typing || e.ctrlKey || e.metaKey || e.altKey || !/^[0-9]$/.test(e.key)) return;
      if (document.querySelector("[role=dialog]")) return;
      // The digit itself follows into the field that has the focus now.
      const input = mainField.current?.querySelector("input");
      input?.focus();
      input?.select();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  const chipKeys = useMemo(() => keysOf(way.chips.map((c) => c.name)), [way]);
  const tap = (s: string) => {
    setOwn(null);
    setDraft((d) => ({
      ...d,
      seen: d.seen.includes(s) ? d.seen.filter((x) => x !== s) : [...d.seen, s],
    }));
  };
  useShortcuts(
    useMemo(
      () =>
        [...chipKeys].map(([name, key]) => ({
          key,
          label: `Note that it was seen: ${name}`,
          beside: true,
          run: () => tap(name),
        })),
      [chipKeys],
    ),
  );
  const recordOf = (id: string | undefined) => way.records.find((r) => r.id === id);
  const main = recordOf(kind?.record);
  const asked = (kind?.others ?? []).flatMap((id) => recordOf(id) ?? []);
  const kept = asked.filter((r) => r.kept);
  const save = async () => {
    const read: Record<string, number> = {};
    for (const r of [...(main ? [main] : []), ...asked]) {
      const text = draft.read[r.id] ?? "";
      if (text.trim() === "") continue;
      const v = parse(text, recordUnit(r.unit, units));
      if (v === undefined) {
        setOwn({ field: r.id, message: `“${text}” is not a number; write for example 7.4` });
        return;
      }
      const si = fromRecordUnit(v, r.unit, units);
      read[r.id] = r.sides.length > 0 && !draft.plus[r.id] ? -si : si;
    }
    const { seen, thrower, place, air, note } = draft;
    // Enter twice: what was typed is on its way already, and nothing new stands here.
    if (sending.current > 0 && Object.keys(read).every((id) => recordOf(id)?.kept) && isBare(draft)) return;
    const under = editing?.under ?? logged(way, how);
    // The form is free for the next one at once; what was typed comes back if it is refused.
    const was = draft;
    setDraft((d) => ({ ...d, read: emptied(d.read, way), seen: [], note: "" }));
    sending.current++;
    const trial = { kind: kind?.name ?? "", read, under, seen, thrower, place, air, note };
    // Sent again after no answer came, it may have been logged already.
    const text = JSON.stringify(trial);
    const sure = failed.current?.text === text;
    const key = sure && failed.current ? failed.current.key : freshKey();
    const sent = await onSave(trial, { key, sure });
    failed.current = sent ? null : { text, key };
    sending.current--;
    if (!sent) setDraft((d) => (isBare(d) && sameRead(d.read, emptied(d.read, way)) ? was : d));
  };
  const wrong = (id: string) => (own?.field === id ? own.message : problem?.field(id));
  const chip =
    "min-h-11 border border-ink bg-panel px-3 hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel";
  const said = logged(way, editing ? {} : how);
  const summary = [
    draft.thrower || "nobody named",
    draft.place || "no place",
    ...(way.predicts ? [draft.air ? `air ${draft.air}` : "air not noted"] : []),
    ...kept.map((r) =>
      draft.read[r.id]
        ? `${r.label.toLowerCase()} ${draft.read[r.id]} ${recordUnit(r.unit, units)}`
        : `${r.label.toLowerCase()} not noted`,
    ),
    ...Object.values(editing?.under ?? said),
  ].join(", ");
  const best = main && stats?.[main.id];
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      {way.kinds.length > 1 &&
        (way.kinds.length > 3 ? (
          <Select
            label="Tried for"
            value={kind?.name ?? ""}
            options={way.kinds.map((k) => ({ value: k.name, label: k.label }))}
            onChange={onKind}
          />
        ) : (
          <Choice
            label="Tried for"
            value={kind?.name ?? ""}
            options={way.kinds.map((k) => ({ value: k.name, label: k.label }))}
            onChange={onKind}
          />
        ))}
      {kind?.rules && <p className="text-sm text-quiet">{kind.rules}</p>}
      {kind && <CautionsAt way={way} at="kind" kind={kind.name} />}
      {main && (
        <>
          <div ref={mainField} className="flex items-end gap-2">
            <Field
              label={main.label}
              className="grow"
              inputMode="decimal"
              data-quick="yes"
              unit={recordUnit(main.unit, units)}
              value={draft.read[main.id] ?? ""}
              problem={wrong(main.id)}
              hint={editing ? undefined : "Type it and press Enter, or tap one below."}
              onChange={(e) => typed(main.id, e.target.value)}
            />
            {main.watch && <Stopwatch onStop={(s) => typed(main.id, s.toFixed(1))} />}
          </div>
          <div
            className="flex flex-wrap gap-1.5"
            role="group"
            aria-label={`${main.label}, near the usual one`}
          >
            {near(main, stats?.[main.id], units).map((v) => (
              <button
                key={v}
                type="button"
                className={`${chip} title min-w-12 text-lg`}
                aria-pressed={parse(draft.read[main.id] ?? "", recordUnit(main.unit, units)) === v}
                onClick={() => typed(main.id, String(v))}
              >
                {v}
              </button>
            ))}
          </div>
        </>
      )}
      <Button type="submit" weight="now" className="title min-h-13 text-xl">
        {editing ? `Save the ${way.words.one}` : way.words.log}
      </Button>
      {editing && <Button onClick={onCancel}>Leave it as it was</Button>}
      {asked
        .filter((r) => !r.kept && !r.clock)
        .map((r) => (
          <div key={r.id} className="flex items-end gap-2">
            <Field
              label={r.label}
              className="grow"
              inputMode="decimal"
              unit={recordUnit(r.unit, units)}
              value={draft.read[r.id] ?? ""}
              problem={wrong(r.id)}
              onChange={(e) => typed(r.id, e.target.value)}
            />
            {r.watch && <Stopwatch onStop={(s) => typed(r.id, s.toFixed(1))} />}
            {r.sides.length > 0 && (
              <div className="flex" role="group" aria-label={`${r.label}: to which side`}>
                {r.sides.map((side, i) => (
                  <button
                    key={side}
                    type="button"
                    className={`${chip} -mr-px`}
                    aria-pressed={(draft.plus[r.id] ?? true) === (i === 1)}
                    onClick={() => set({ plus: { ...draft.plus, [r.id]: i === 1 } })}
                  >
                    {side}
                  </button>
                ))}
              </div>
            )}
          </div>
        ))}
      {asked
        .filter((r) => r.clock)
        .map((r) => (
          <ClockFace key={r.id} label={r.label} value={draft.read[r.id] ?? ""} onTap={(h) => typed(r.id, h)}>
            {face}
          </ClockFace>
        ))}
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Seen</legend>
        <div className="flex flex-wrap gap-1.5">
          {way.chips.map(({ name: s }) => (
            <button
              key={s}
              type="button"
              className={`${chip} text-sm`}
              aria-pressed={draft.seen.includes(s)}
              aria-keyshortcuts={chipKeys.get(s)}
              onClick={() => tap(s)}
            >
              <Lettered word={s} letter={chipKeys.get(s)} />
            </button>
          ))}
        </div>
      </fieldset>
      <Field
        label="Note"
        value={draft.note}
        maxLength={2000}
        problem={problem?.field("note")}
        onChange={(e) => set({ note: e.target.value })}
      />
      <details open={kept.some((r) => wrong(r.id) !== undefined)}>
        <summary>
          <span className="font-semibold">Conditions</span>, kept from the {way.words.one} before: {summary}
        </summary>
        <div className="mt-2 grid grid-cols-2 gap-3">
          <Field
            label={way.words.who}
            value={draft.thrower}
            maxLength={80}
            onChange={(e) => set({ thrower: e.target.value })}
          />
          <Field
            label="Place"
            value={draft.place}
            maxLength={80}
            onChange={(e) => set({ place: e.target.value })}
          />
          <Field
            label="Air"
            value={draft.air}
            maxLength={80}
            onChange={(e) => set({ air: e.target.value })}
          />
          {kept.map((r) => (
            <Field
              key={r.id}
              label={r.label}
              inputMode="decimal"
              unit={recordUnit(r.unit, units)}
              value={draft.read[r.id] ?? ""}
              problem={wrong(r.id)}
              onChange={(e) => typed(r.id, e.target.value)}
            />
          ))}
        </div>
      </details>
      {main && best && best.n > 0 && !editing && (
        <p className="text-sm text-quiet">
          Best at this tweak so far: {recordValue(best.best, main.unit, units)}.
        </p>
      )}
    </form>
  );
}
