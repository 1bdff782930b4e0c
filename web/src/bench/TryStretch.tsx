import { useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { toast } from "sonner";
import { api, Problem, type Trial, type TrialInput, type Tweak } from "../api/client";
import { useShortcuts } from "../keys";
import { Button, Caution, Figure } from "../parts/controls";
import { useUnits } from "../settings";
import { offerUndo } from "../undo";
import { changeWords, distance, number } from "../units";
import { MatHead } from "./MatHead";
import { DraftBox, Mat, Slip } from "./Slip";
import { ThrowChart } from "./ThrowChart";
import { TrialForm } from "./TrialForm";
import type { Ready } from "./useBench";

/** Throws: log them, see them by tweak. */
export function TryStretch({ ready }: { ready: Ready }) {
  const { build, bench, pattern } = ready;
  const thrown = pattern.moves === "fly";
  const units = useUnits();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const [editing, setEditing] = useState<Trial | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const latest = build.tweaks.at(-1);
  const asked = Number(search.get("tweak"));
  const tweak = build.tweaks.find((t) => t.no === asked) ?? latest;
  useShortcuts(
    useMemo(
      () => [
        { key: "0…9", label: "Type the distance of a throw, then Enter", run: () => undefined },
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
  const throwAway = async (t: Trial) => {
    if (await bench.change(api.binTrial(t.id))) {
      offerUndo(`${words(t)} is in the bin`, async () => bench.show(await api.restoreTrial(t.id)));
    }
  };
  const words = (t: TrialInput) =>
    t.distance_m !== undefined
      ? `The throw of ${distance(t.distance_m, units)}`
      : thrown
        ? "The throw"
        : "The trial";
  const save = async (input: TrialInput): Promise<boolean> => {
    setProblem(null);
    try {
      if (editing) {
        const old = editing;
        bench.show(await api.changeTrial(old.id, input));
        setEditing(null);
        offerUndo(`${words(input)} is saved`, async () =>
          bench.show(await api.changeTrial(old.id, readings(old))),
        );
        return true;
      }
      const logged = await api.logTrial(build.id, input);
      bench.show(logged.build);
      setSearch({});
      offerUndo(`${words(input)} is logged at tweak ${logged.tweak}`, async () =>
        bench.show(await api.binTrial(logged.trial)),
      );
      return true;
    } catch (e) {
      if (e instanceof Problem) setProblem(e);
      else toast.error("The throw could not be kept.");
      return false;
    }
  };
  const stats = tweak?.distance;
  const general = problem && problem.fields.length === 0 ? problem : null;
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        {build.trials === 0 ? (
          <p className="max-w-prose text-lg">
            {thrown
              ? "No throws yet. Throw it, pace out how far it went, and log the distance."
              : "Not tried yet. Play with it, and log what you saw."}
          </p>
        ) : (
          thrown && <ThrowChart tweaks={build.tweaks} chosen={tweak?.no ?? 0} />
        )}
        {build.tweaks.length > 0 && (
          <Tweaks ready={ready} chosen={tweak?.no ?? 0} onChoose={(no) => setSearch({ tweak: String(no) })} />
        )}
        {tweak && tweak.trials.length > 0 && (
          <Throws
            thrown={thrown}
            tweak={tweak}
            editing={editing}
            onEdit={setEditing}
            onBin={(t) => void throwAway(t)}
          />
        )}
      </Mat>
      <Slip label="Slip" className="max-lg:order-first">
        {tweak && stats && stats.n > 0 && (
          <div className="max-lg:order-last">
            <Figure
              value={units === "mm" ? number(stats.median, 2) : distance(stats.median, units)}
              unit={units === "mm" ? "m median" : "median"}
            >
              Tweak {tweak.no}, n = {stats.n}. Best {distance(stats.best, units)}
              {stats.n > 1 &&
                `; the middle half ${distance(stats.q1, units)} to ${distance(stats.q3, units)}`}
              .
            </Figure>
          </div>
        )}
        <h2 className="text-2xl">
          {editing
            ? thrown
              ? "Correct a throw"
              : "Correct what was logged"
            : thrown
              ? "How far did it go?"
              : "What did it do?"}
        </h2>
        {thrown && build.trials === 0 && <LaneCaution />}
        {!editing && build.draft && <DraftBox ready={ready} />}
        {general && <Caution title="Not logged">{general.message}</Caution>}
        <TrialForm
          key={editing?.id ?? "new"}
          moves={pattern.moves}
          conditions={build.conditions}
          stats={latest?.distance}
          editing={editing}
          problem={problem}
          onSave={save}
          onCancel={() => setEditing(null)}
        />
        {thrown && build.trials > 0 && (
          <Button onClick={() => void navigate(`/bench/${build.id}/tune`)}>What to change next →</Button>
        )}
      </Slip>
    </>
  );
}

/** Before the first throw. */
function LaneCaution() {
  return (
    <div className="border-2 border-on-mark bg-caution p-3 text-on-mark" data-caution="SF04">
      <p className="title text-lg">Before the first throw</p>
      <p>Throw down a clear lane, and never at faces. Children wait behind the thrower.</p>
    </div>
  );
}

/** What was measured and noted of a throw, without its number and date. */
function readings(t: Trial): TrialInput {
  const { distance_m, time_s, seen, thrower, place, air, throw_height_m, note, offset_m } = t;
  return { distance_m, time_s, seen, thrower, place, air, throw_height_m, note, offset_m };
}

/** The tweaks of a build, what each changed and how it flew. */
function Tweaks({
  ready,
  chosen,
  onChoose,
}: {
  ready: Ready;
  chosen: number;
  onChoose: (no: number) => void;
}) {
  const { build, bench } = ready;
  const units = useUnits();
  const again = (t: Tweak) => {
    bench.tryOut(t.setup);
    void bench.keep(t.setup);
  };
  return (
    <div className="mt-4 overflow-x-auto">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">Tweaks</caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col">Tweak</th>
            <th scope="col">Changed, and why</th>
            <th scope="col" className="text-right">
              n
            </th>
            <th scope="col" className="text-right">
              Best
            </th>
            <th scope="col" className="text-right">
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
            const d = t.distance;
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
                <td className="py-1.5 text-right">{d.n}</td>
                <td className="py-1.5 pl-3 text-right whitespace-nowrap">
                  {d.n > 0 && distance(d.best, units)}
                </td>
                <td className="py-1.5 pl-3 text-right font-bold whitespace-nowrap text-tide">
                  {d.n > 0 && distance(d.median, units)}
                </td>
                <td className="max-sm:hidden py-1.5 pl-3 text-right whitespace-nowrap">
                  {d.n > 1 && `${distance(d.q1, units)} to ${distance(d.q3, units)}`}
                </td>
                <td className="py-1.5 pl-3 text-right">
                  {t !== build.tweaks.at(-1) && (
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

function Throws({
  thrown,
  tweak,
  editing,
  onEdit,
  onBin,
}: {
  thrown: boolean;
  tweak: Tweak;
  editing: Trial | null;
  onEdit: (t: Trial) => void;
  onBin: (t: Trial) => void;
}) {
  const units = useUnits();
  return (
    <div className="mt-5 overflow-x-auto">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">
          {thrown ? "Throws" : "Trials"} at tweak {tweak.no}, newest first
        </caption>
        <thead className="text-sm text-quiet">
          <tr>
            <th scope="col" className="max-sm:hidden">
              When
            </th>
            <th scope="col" className="text-right">
              Distance
            </th>
            <th scope="col" className="pl-4 text-right">
              Time
            </th>
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
              <td className="py-1.5 text-right font-bold whitespace-nowrap">
                {t.distance_m !== undefined && distance(t.distance_m, units)}
              </td>
              <td className="py-1.5 pl-4 text-right whitespace-nowrap">
                {t.time_s !== undefined && `${number(t.time_s)} s`}
              </td>
              <td className="py-1.5 pl-4">
                {[
                  ...(t.seen ?? []),
                  t.offset_m !== undefined &&
                    `${distance(Math.abs(t.offset_m), units)} ${t.offset_m < 0 ? "left" : "right"}`,
                  t.note,
                ]
                  .filter(Boolean)
                  .join(", ")}
              </td>
              <td className="max-sm:hidden py-1.5 text-sm text-quiet">
                {[t.thrower, t.place, t.air].filter(Boolean).join(", ")}
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
