import type { Clinic } from "../../api/client";
import { Button } from "../../parts/controls";
import { useUnits } from "../../settings";
import { changeWords, number, recordValue } from "../../units";
import type { Ready } from "../frame/useBench";

/** Was the last change worth it? On statistics, not on the last throw. */
export function KeepOrRevert({
  ready,
  kept,
  tweak,
}: {
  ready: Ready;
  kept: NonNullable<Clinic["kept"]>;
  tweak: number;
}) {
  const units = useUnits();
  const { bench, build, way } = ready;
  const before = build.tweaks.find((t) => t.no === kept.against);
  const record = way.records.find((r) => r.id === kept.reading);
  const of = (v: number) => recordValue(v, record?.unit ?? "", units);
  const label = record?.label.toLowerCase() ?? "reading";
  const title = {
    keep: `Keep tweak ${tweak}`,
    revert: `Go back to tweak ${kept.against}`,
    "try more":
      kept.more > 0
        ? `${kept.more} more ${way.words.many} before you decide`
        : `More ${way.words.many} before you decide`,
  }[kept.advice];
  const changes = kept.changes.map((c) => changeWords(c, units)).join(", ");
  return (
    <section aria-label="Keep or revert" className="border-2 border-tide p-3" data-advice={kept.advice}>
      <h2 className="text-xl">{title}</h2>
      <p className="mt-1">
        {kept.verdict === "too few"
          ? `Tweak ${tweak} has ${kept.after.n} ${way.words.many} with ${label}, tweak ${kept.against} has ${kept.before.n}: three of each are the least.`
          : `${of(kept.before.median)} → ${of(kept.after.median)} measured, ${label} (n = ${kept.before.n}, ${kept.after.n}). The change is worth ${of(Math.abs(kept.shift))} ${kept.shift < 0 ? "less" : "more"}; mere scatter does as much in ${kept.chance < 0.01 ? "under 1" : number(100 * kept.chance, 0)} % of cases.`}
      </p>
      {kept.symptom && (
        <p className="mt-1">
          {kept.symptom.name}: {kept.symptom.before} of {kept.symptom.before_n} before, {kept.symptom.after}{" "}
          of {kept.symptom.after_n} now.
        </p>
      )}
      {changes && (
        <p className="mt-1 text-sm text-quiet">
          {changes}
          {kept.changes.length > 1 && ". They were changed at once: you do not know which of them did it"}
        </p>
      )}
      {kept.advice === "revert" && before && !build.draft && (
        <Button
          className="mt-2"
          onClick={() => {
            void bench.keep(before.setup);
          }}
        >
          Set it so again
        </Button>
      )}
    </section>
  );
}
