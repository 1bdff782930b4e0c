import { Button } from "../../parts/controls";
import { number } from "../../units";
import type { TellerDrawing } from "./types";

/** What comes up how often: a bar for each message, the even chance as a line. */
export function Odds({ teller, onFair }: { teller: TellerDrawing; onFair?: (() => void) | undefined }) {
  const even = 1 / teller.halves.length;
  const most = Math.max(2 * even, ...teller.halves.map((h) => h.chance));
  return (
    <section aria-label="What comes up" className="min-w-0" data-odds="">
      <h2 className="text-xl">What comes up, in a hundred games</h2>
      <p
        className={teller.fair ? "text-quiet" : "bg-caution px-2 py-1 text-on-mark"}
        data-fair={String(teller.fair)}
      >
        {teller.says}
      </p>
      <ol className="mt-2 space-y-1">
        {teller.halves.map((h, i) => (
          <li key={i} className="flex items-center gap-2">
            <span className="w-7 shrink-0 text-right font-bold">{h.number || "–"}</span>
            <span className="relative h-6 grow border border-line">
              <span
                className="absolute inset-y-0 left-0 bg-ink"
                style={{ width: `${(100 * h.chance) / most}%` }}
              />
              <span
                className="absolute inset-y-0 border-l-2 border-dashed border-tide"
                style={{ left: `${(100 * even) / most}%` }}
              />
            </span>
            <span className="w-14 shrink-0 text-right">{number(100 * h.chance, 1)}</span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-sm text-quiet">
        A bar for each number; dashed: {number(100 * even, 1)}, one game in eight. Exact, for people who
        choose without a preference. {teller.rounds} {teller.rounds === 1 ? "number is" : "numbers are"}{" "}
        counted before one is opened.
      </p>
      {teller.assumed && (
        <p className="text-sm">
          Nothing is written yet: reckoned with RED, BLUE, GREEN, YELLOW and 1 to 8 in order.
        </p>
      )}
      <p className="mt-1 text-sm text-quiet">
        Words:{" "}
        {teller.words
          .map((w) => `${w.word || "–"} ${w.moves}, opens ${teller.opens[w.opens]?.title ?? ""}`)
          .join("; ")}
        .
      </p>
      {teller.changes.length > 0 && (
        <div className="mt-2">
          <p>Fair with the fewest changes: {teller.changes.map((c) => `${c.from} to ${c.to}`).join(", ")}.</p>
          {onFair && (
            <Button className="mt-1" onClick={onFair}>
              Number it so
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
