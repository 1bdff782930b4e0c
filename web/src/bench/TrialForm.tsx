import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type Pattern, type Problem, type Stats, type Trial, type TrialInput } from "../api/client";
import { Button, Field } from "../parts/controls";
import { useUnits } from "../settings";
import { distance, fromHallUnit, hallUnit, inHallUnit, number, parseNumber, type Units } from "../units";
import { Stopwatch } from "./Stopwatch";

const shown = (m: number | undefined, units: Units) =>
  m === undefined ? "" : number(inHallUnit(m, units), 2).replace("−", "-");

interface Draft {
  distance: string;
  time: string;
  seen: string[];
  thrower: string;
  place: string;
  air: string;
  height: string;
  note: string;
  aside: string;
  side: "left" | "right";
}

function draftOf(t: TrialInput, units: Units): Draft {
  return {
    distance: shown(t.distance_m, units),
    time: t.time_s === undefined ? "" : String(t.time_s),
    seen: t.seen ?? [],
    thrower: t.thrower ?? "",
    place: t.place ?? "",
    air: t.air ?? "",
    height: shown(t.throw_height_m, units),
    note: t.note ?? "",
    aside: t.offset_m === undefined ? "" : shown(Math.abs(t.offset_m), units),
    side: (t.offset_m ?? 0) < 0 ? "left" : "right",
  };
}

/** Round distances near the usual one, for logging with two taps. */
function near(stats: Stats | undefined, units: Units): number[] {
  const middle = stats && stats.n > 0 ? Math.round(inHallUnit(stats.median, units)) : units === "mm" ? 5 : 16;
  const step = units === "mm" ? 1 : 2;
  const first = Math.max(step, middle - 2 * step);
  return [0, 1, 2, 3, 4].map((i) => first + i * step);
}

/** Log a throw, or correct one. Typing a digit anywhere starts with the distance. */
export function TrialForm({
  moves,
  conditions,
  stats,
  editing,
  problem,
  onSave,
  onCancel,
}: {
  moves: Pattern["moves"];
  conditions: TrialInput;
  stats: Stats | undefined;
  editing: Trial | null;
  problem: Problem | null;
  onSave: (t: TrialInput) => Promise<boolean>;
  onCancel: () => void;
}) {
  const units = useUnits();
  // What flies is thrown and paced out; other toys are played with and looked at.
  const thrown = moves === "fly";
  const [draft, setDraft] = useState(() => draftOf(editing ?? conditions, units));
  const [own, setOwn] = useState<{ field: string; message: string } | null>(null);
  const distanceField = useRef<HTMLDivElement>(null);
  const seen = useQuery({ queryKey: ["seen", moves], queryFn: () => api.seen(moves), staleTime: Infinity });
  const set = (part: Partial<Draft>) => {
    setOwn(null);
    setDraft((d) => ({ ...d, ...part }));
  };
  const [usedUnits, setUsedUnits] = useState(units);
  if (usedUnits !== units) {
    // What was typed keeps its meaning when the units are switched.
    const turn = (t: string) => {
      const v = parseNumber(t);
      return v === undefined ? t : shown(fromHallUnit(v, usedUnits), units);
    };
    setUsedUnits(units);
    setDraft((d) => ({ ...d, distance: turn(d.distance), height: turn(d.height), aside: turn(d.aside) }));
  }
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.matches("input, textarea, select, [role=slider]");
      if (typing || e.ctrlKey || e.metaKey || e.altKey || !/^[0-9]$/.test(e.key)) return;
      if (document.querySelector("[role=dialog]")) return;
      // The digit itself follows into the field that has the focus now.
      const input = distanceField.current?.querySelector("input");
      input?.focus();
      input?.select();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);

  const save = async () => {
    const out: TrialInput = {
      seen: draft.seen,
      thrower: draft.thrower,
      place: draft.place,
      air: draft.air,
      note: draft.note,
    };
    for (const [field, sent] of [
      ["distance", "distance_m"],
      ["time", "time_s"],
      ["height", "throw_height_m"],
      ["aside", "offset_m"],
    ] as const) {
      if (draft[field].trim() === "") continue;
      const v = parseNumber(draft[field]);
      if (v === undefined) {
        setOwn({ field, message: `“${draft[field]}” is not a number; write for example 7.4` });
        return;
      }
      out[sent] = field === "time" ? v : fromHallUnit(v, units);
      if (field === "aside" && draft.side === "left") out[sent] = -out[sent];
    }
    if (await onSave(out)) {
      setDraft((d) => ({ ...d, distance: "", time: "", seen: [], note: "", aside: "" }));
    }
  };
  const wrong = (field: string, sent: string) => (own?.field === field ? own.message : problem?.field(sent));
  const chip =
    "min-h-11 border border-ink bg-panel px-3 hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel";
  const summary = [
    draft.thrower || "nobody named",
    draft.place || "no place",
    ...(thrown
      ? [
          draft.air ? `air ${draft.air}` : "air not noted",
          draft.height ? `from ${draft.height} ${hallUnit(units)}` : "height not noted",
        ]
      : []),
  ].join(", ");
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      {thrown && (
        <>
          <div ref={distanceField}>
            <Field
              label="Distance"
              inputMode="decimal"
              unit={hallUnit(units)}
              value={draft.distance}
              problem={wrong("distance", "distance_m")}
              hint={editing ? undefined : "Type it and press Enter, or tap one below."}
              onChange={(e) => set({ distance: e.target.value })}
            />
          </div>
          <div className="flex flex-wrap gap-1.5" role="group" aria-label="Distances near the usual one">
            {near(stats, units).map((v) => (
              <button
                key={v}
                type="button"
                className={`${chip} title min-w-12 text-lg`}
                aria-pressed={parseNumber(draft.distance) === v}
                onClick={() => set({ distance: String(v) })}
              >
                {v}
              </button>
            ))}
          </div>
        </>
      )}
      <Button type="submit" weight="now" className="title min-h-13 text-xl">
        {thrown ? (editing ? "Save the throw" : "Log the throw") : editing ? "Save it" : "Log it"}
      </Button>
      {editing && <Button onClick={onCancel}>Leave it as it was</Button>}
      {thrown && (
        <div className="flex items-end gap-2">
          <Field
            label="Time in the air"
            className="grow"
            inputMode="decimal"
            unit="s"
            value={draft.time}
            problem={wrong("time", "time_s")}
            onChange={(e) => set({ time: e.target.value })}
          />
          <Stopwatch onStop={(s) => set({ time: s.toFixed(1) })} />
        </div>
      )}
      {thrown && (
        <div className="flex items-end gap-2">
          <Field
            label="Landed aside of the line aimed at"
            className="grow"
            inputMode="decimal"
            unit={hallUnit(units)}
            value={draft.aside}
            problem={wrong("aside", "offset_m")}
            onChange={(e) => set({ aside: e.target.value })}
          />
          <div className="flex" role="group" aria-label="To which side">
            {(["left", "right"] as const).map((side) => (
              <button
                key={side}
                type="button"
                className={`${chip} -mr-px`}
                aria-pressed={draft.side === side}
                onClick={() => set({ side })}
              >
                {side}
              </button>
            ))}
          </div>
        </div>
      )}
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Seen</legend>
        <div className="flex flex-wrap gap-1.5">
          {seen.data?.map((s) => (
            <button
              key={s}
              type="button"
              className={`${chip} text-sm`}
              aria-pressed={draft.seen.includes(s)}
              onClick={() =>
                set({ seen: draft.seen.includes(s) ? draft.seen.filter((x) => x !== s) : [...draft.seen, s] })
              }
            >
              {s}
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
      <details open={Boolean(problem?.field("throw_height_m") ?? own?.field === "height")}>
        <summary>
          <span className="font-semibold">Conditions</span>, kept from {thrown ? "the throw" : "the time"}{" "}
          before: {summary}
        </summary>
        <div className="mt-2 grid grid-cols-2 gap-3">
          <Field
            label={thrown ? "Thrower" : "Who"}
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
          {thrown && (
            <Field
              label="Throw height"
              inputMode="decimal"
              unit={hallUnit(units)}
              value={draft.height}
              problem={wrong("height", "throw_height_m")}
              onChange={(e) => set({ height: e.target.value })}
            />
          )}
        </div>
      </details>
      {stats && stats.n > 0 && !editing && (
        <p className="text-sm text-quiet">Best at this tweak so far: {distance(stats.best, units)}.</p>
      )}
    </form>
  );
}
