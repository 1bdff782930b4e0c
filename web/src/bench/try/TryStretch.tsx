import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { toast } from "../../toast";
import {
  api,
  Problem,
  type Build,
  type Moving,
  type Trial,
  type TrialInput,
  type TrialRecord,
  type Tweak,
} from "../../api/client";
import { useShortcuts } from "../../keys";
import { Button, Caution, Figure, Select } from "../../parts/controls";
import { useUnits } from "../../settings";
import { offerUndo } from "../../undo";
import { changeWords, inRecordUnit, number, recordUnit, recordValue } from "../../units";
import { CautionsAt } from "../frame/CautionsAt";
import { Conditions } from "../../parts/Conditions";
import { MatHead } from "../frame/MatHead";
import { DraftBox, Mat, Slip } from "../frame/Slip";
import { TrialChart } from "../../parts/TrialChart";
import { TrialForm } from "./TrialForm";
import { faceOf } from "../../motions";
import { usePrediction } from "../frame/usePrediction";
import { sizeOf } from "../../parts/trialWords";
import { onTable, type Ready } from "../frame/useBench";
import { changed, question } from "../../api/queries";
import { useConditions } from "../../parts/conditions";
import { Disagrees } from "../../parts/Disagrees";

/** Trials: log them, see them by tweak. */
export function TryStretch({ ready }: { ready: Ready }) {
  const { build, bench, way } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const [editing, setEditing] = useState<Trial | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const latest = onTable(build);
  const asked = Number(search.get("tweak"));
  const tweak = build.tweaks.find((t) => t.no === asked) ?? latest;
  // Of the readings that some kind of trial counts by, those that occur.
  const counted = way.records.filter(
    (r) => way.kinds.some((k) => k.record === r.id) && build.tweaks.some((t) => t.stats[r.id]),
  );
  const [picked, setPicked] = useState("");
  // What it is tried for stays the same from trial to trial.
  const [triedFor, setTriedFor] = useState<string | null>(null);
  const kindName = triedFor ?? (editing ?? played(search) ?? build.conditions).kind;
  const kind = way.kinds.find((k) => k.name === kindName) ?? way.kinds[0];
  const edit = (t: Trial | null) => {
    setEditing(t);
    setTriedFor(null);
  };
  const record = counted.find((r) => r.id === picked) ?? counted[0];
  useShortcuts(
    useMemo(
      () => [
        { key: "0…9", label: "Type what was measured, then Enter", run: () => undefined },
        {
          key: "ArrowRight",
          label: "Go on to what to change next",
          run: () => void navigate(`/bench/${build.id}/tune`),
        },
        { key: "ArrowLeft", label: "Back to the set-up", run: () => void navigate(`/bench/${build.id}/set`) },
      ],
      [navigate, build.id],
    ),
  );
  const queries = useQueryClient();
  const [how] = useConditions(way);
  const clinic = useQuery(question.clinic(build, how));
  /** Shows the build after a trial has changed: what was learnt from trials may differ now. */
  const show = (b: Build) => {
    bench.show(b);
    void changed.trials(queries);
  };
  const throwAway = async (t: Trial) => {
    const b = await bench.change(api.binTrial(t.id));
    if (b) {
      show(b);
      offerUndo(`${words(t)} is in the bin`, { do: "restore trial", id: t.id });
    }
  };
  const words = (t: TrialInput) => `The ${way.words.one}${sizeOf(t, way, units)}`;
  const save = async (input: TrialInput, sent: { key: string; sure: boolean }): Promise<boolean> => {
    setProblem(null);
    try {
      if (editing) {
        const old = editing;
        show(await api.changeTrial(old.id, input));
        edit(null);
        offerUndo(`${words(input)} is saved`, { do: "change trial", id: old.id, trial: readings(old) });
        return true;
      }
      const logged = await api.logTrial(
        build.id,
        input,
        { setup: ready.setup, version: bench.version },
        sent,
      );
      show(logged.build);
      setSearch({});
      offerUndo(
        `${words(input)} is logged at tweak ${logged.tweak}`,
        { do: "bin trial", id: logged.trial },
        ...(logged.made ? [{ do: "withdraw tweak" as const, id: build.id, no: logged.tweak }] : []),
      );
      return true;
    } catch (e) {
      if (e instanceof Problem) {
        setProblem(e);
        // The next one may stand in the form already: this says which it was.
        toast.error(`${words(input)} is not kept: ${e.message}`);
        // Somebody else may have moved something: it is shown as it is now.
        if (e.status === 409) await changed.build(queries, build.id);
      } else toast.error(`The ${way.words.one} could not be kept.`);
      return false;
    }
  };
  const stats = record && tweak?.stats[record.id];
  const general = problem && (problem.fields.length === 0 || problem.status === 409) ? problem : null;
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        {build.trials === 0 && <p className="max-w-prose text-lg">{way.words.none}</p>}
        {counted.length > 1 && (
          <Select
            label="Shown by tweak"
            value={record?.id ?? ""}
            options={counted.map((r) => ({ value: r.id, label: r.label }))}
            onChange={setPicked}
          />
        )}
        {record && <TrialChart tweaks={build.tweaks} chosen={tweak?.no ?? 0} record={record} way={way} />}
        {build.tweaks.length > 0 && (
          <Tweaks
            ready={ready}
            record={record}
            chosen={tweak?.no ?? 0}
            onChoose={(no) => setSearch({ tweak: String(no) })}
          />
        )}
        {tweak && tweak.trials.length > 0 && (
          <Trials way={way} tweak={tweak} editing={editing} onEdit={edit} onBin={(t) => void throwAway(t)} />
        )}
      </Mat>
      <Slip label="Slip" className="max-lg:order-first">
        {tweak && record && stats && stats.n > 0 && (
          <div className="max-lg:order-last">
            <Figure
              value={
                record.unit === "m" && units === "in"
                  ? recordValue(stats.median, record.unit, units)
                  : number(inRecordUnit(stats.median, record.unit, units), 2)
              }
              unit={
                record.unit === "m" && units === "in"
                  ? "median"
                  : `${recordUnit(record.unit, units)} ${record.unit === "" ? record.label.toLowerCase() + ", " : ""}median`.trim()
              }
            >
              Tweak {tweak.no}, {counted.length > 1 && `${record.label.toLowerCase()}, `}n = {stats.n}. Best{" "}
              {recordValue(stats.best, record.unit, units)}
              {stats.n > 1 &&
                `; the middle half ${recordValue(stats.q1, record.unit, units)} to ${recordValue(stats.q3, record.unit, units)}`}
              .
            </Figure>
          </div>
        )}
        {clinic.data && tweak === latest && <Disagrees text={clinic.data.disagrees} />}
        <h2 className="text-2xl">
          {editing ? `Correct a ${way.words.one}` : (kind?.asks ?? "What did it do?")}
        </h2>
        {build.trials === 0 && <CautionsAt way={way} at="first" />}
        {!editing && build.draft && <DraftBox ready={ready} />}
        {general && <Caution title="Not logged">{general.message}</Caution>}
        <TrialForm
          key={editing?.id ?? "new"}
          way={way}
          kind={kind}
          onKind={setTriedFor}
          conditions={played(search) ?? build.conditions}
          stats={latest?.stats}
          editing={editing}
          problem={problem}
          face={<Face ready={ready} />}
          onSave={save}
          onCancel={() => edit(null)}
        />
        {way.conditions.some((c) => c.logged) && <Conditions way={way} />}
        {build.trials > 0 && (
          <Button onClick={() => void navigate(`/bench/${build.id}/tune`)}>What to change next →</Button>
        )}
      </Slip>
    </>
  );
}

/** What a play on the screen brings along in the address: nothing where none was played. */
function played(search: URLSearchParams): TrialInput | undefined {
  const kind = search.get("kind");
  if (!kind) return undefined;
  const read = Object.fromEntries(
    [...search].flatMap(([k, v]) => (k === "kind" || k === "tweak" || v === "" ? [] : [[k, Number(v)]])),
  );
  return { kind, read };
}

/** What was measured and noted of a trial, without its number and date. */
function readings(t: Trial): TrialInput {
  const { kind, read, under, seen, thrower, place, air, note } = t;
  return { kind, read, under, seen, thrower, place, air, note };
}

/** The tweaks of a build, what each changed and how it flew. */
function Tweaks({
  ready,
  record,
  chosen,
  onChoose,
}: {
  ready: Ready;
  record: TrialRecord | undefined;
  chosen: number;
  onChoose: (no: number) => void;
}) {
  const { build, bench } = ready;
  const units = useUnits();
  const of = (v: number) => recordValue(v, record?.unit ?? "", units);
  const again = (t: Tweak) => {
    void bench.keep(t.setup);
  };
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">Tweaks</caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col" className="pr-3">
              Tweak
            </th>
            <th scope="col">Changed, and why</th>
            <th scope="col" className="text-right">
              n
            </th>
            <th scope="col" className="pl-3 text-right">
              Best
            </th>
            <th scope="col" className="pl-3 text-right">
              Median
            </th>
            <th scope="col" className="max-sm:hidden text-right">
              Middle half
            </th>
            <th scope="col">
              <span className="sr-only">Do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {build.tweaks.map((t) => {
            const d = record && t.stats[record.id];
            return (
              <tr
                key={t.no}
                className={`border-t border-line align-top ${t.no === chosen ? "bg-panel" : ""}`}
              >
                <th scope="row" className="py-1.5 pr-3">
                  <button
                    type="button"
                    className="min-h-9 px-2 underline underline-offset-4 aria-pressed:bg-ink aria-pressed:text-panel aria-pressed:no-underline"
                    aria-pressed={t.no === chosen}
                    aria-label={`Show tweak ${t.no}`}
                    onClick={() => onChoose(t.no)}
                  >
                    {t.no}
                  </button>
                </th>
                <td className="py-1.5 pr-3">
                  {t.changes.length > 0
                    ? t.changes.map((c) => changeWords(c, units)).join(", ")
                    : "as the pattern has it"}
                  {t.why && <span className="block text-sm text-quiet">{t.why}</span>}
                </td>
                <td className="py-1.5 text-right">{d?.n ?? t.trials.length}</td>
                <td className="py-1.5 pl-3 text-right whitespace-nowrap">{d && of(d.best)}</td>
                <td className="py-1.5 pl-3 text-right font-bold whitespace-nowrap text-tide">
                  {d && of(d.median)}
                </td>
                <td className="max-sm:hidden py-1.5 pl-3 text-right whitespace-nowrap">
                  {d && d.n > 1 && `${of(d.q1)} to ${of(d.q3)}`}
                </td>
                <td className="py-1.5 pl-3 text-right">
                  {t.no === build.at && !build.draft ? (
                    <span className="text-sm text-quiet">on the table</span>
                  ) : (
                    <Button weight="bare" className="text-sm whitespace-nowrap" onClick={() => again(t)}>
                      Set it so again
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Trials({
  way,
  tweak,
  editing,
  onEdit,
  onBin,
}: {
  way: Moving;
  tweak: Tweak;
  editing: Trial | null;
  onEdit: (t: Trial) => void;
  onBin: (t: Trial) => void;
}) {
  const units = useUnits();
  const columns = way.records.filter(
    (r) => !r.kept && r.sides.length === 0 && tweak.trials.some((t) => t.read?.[r.id] !== undefined),
  );
  const kindOf = (t: Trial) =>
    way.kinds.length > 1 && (way.kinds.find((k) => k.name === t.kind) ?? way.kinds[0])?.label.toLowerCase();
  return (
    <div className="mt-5 overflow-x-auto">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">
          {way.words.many.charAt(0).toUpperCase() + way.words.many.slice(1)} at tweak {tweak.no}, newest first
        </caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col" className="max-sm:hidden">
              When
            </th>
            {columns.map((r) => (
              <th key={r.id} scope="col" className="pl-3 text-right">
                {r.label}
              </th>
            ))}
            <th scope="col" className="pl-4">
              Seen, note
            </th>
            <th scope="col" className="max-sm:hidden">
              Conditions
            </th>
            <th scope="col">
              <span className="sr-only">Do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {[...tweak.trials].reverse().map((t) => (
            <tr
              key={t.id}
              className={`border-t border-line align-top ${editing?.id === t.id ? "bg-panel" : ""}`}
            >
              <td className="max-sm:hidden py-1.5 pr-3 text-sm whitespace-nowrap text-quiet">
                {new Date(t.at).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}
              </td>
              {columns.map((r, i) => (
                <td
                  key={r.id}
                  className={`py-1.5 pl-3 text-right whitespace-nowrap ${i === 0 ? "font-bold" : ""}`}
                >
                  {t.read?.[r.id] !== undefined && recordValue(t.read[r.id] ?? 0, r.unit, units)}
                </td>
              ))}
              <td className="py-1.5 pl-4">
                {[
                  kindOf(t),
                  ...(t.seen ?? []),
                  ...way.records
                    .filter((r) => r.sides.length > 0 && t.read?.[r.id] !== undefined)
                    .map((r) => {
                      const v = t.read?.[r.id] ?? 0;
                      return `${recordValue(Math.abs(v), r.unit, units)} ${r.sides[v < 0 ? 0 : 1]}`;
                    }),
                  t.note,
                ]
                  .filter(Boolean)
                  .join(", ")}
              </td>
              <td className="max-sm:hidden py-1.5 text-sm text-quiet">
                {[t.thrower, t.place, t.air, ...Object.values(t.under ?? {})].filter(Boolean).join(", ")}
              </td>
              <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                <Button weight="bare" className="mr-3 text-sm" onClick={() => onEdit(t)}>
                  Edit
                </Button>
                <Button weight="bare" className="text-sm" onClick={() => onBin(t)}>
                  Bin
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The toy that lies under the clock of the form. */
function Face({ ready }: { ready: Ready }) {
  const p = usePrediction(ready, ready.setup).data;
  const Drawn = p ? faceOf(p).Face : null;
  const { front, back } = ready.setup.sheet;
  return p?.works && Drawn ? <Drawn prediction={p} colours={{ front, back }} /> : null;
}
