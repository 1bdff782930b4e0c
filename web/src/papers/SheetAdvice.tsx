import { type Fit, type Want, type Way } from "../api/client";
import { WantFields, WayList } from "./SheetWays";
import { type useWanted } from "./wanted";
import { sameProportions } from "./sheets";
import { useUnits } from "../settings";
import { length, sheetSize } from "../units";
import { Button, Caution } from "../parts/controls";

const missesShown = 4;

/** Why a sheet does not do, in a folder's words. */
export function Verdict({ fit }: { fit: Fit }) {
  const units = useUnits();
  if (fit.does && !fit.small) return null;
  return (
    <Caution still title={fit.does ? "Smaller than fingers like" : "Not as it is"}>
      {!fit.does && fit.why && <p>{`${fit.why.charAt(0).toUpperCase()}${fit.why.slice(1)}.`}</p>}
      {fit.step_why && (
        <p className="mt-1">
          Folded all the same, step {fit.why_step} cannot be made: {fit.step_why}.
        </p>
      )}
      {fit.misses.length > 0 && (
        <>
          <p className="mt-1">
            What misses, against the pattern’s own sheet; step {fit.step} is the first affected:
          </p>
          <ul className="mt-1 list-inside list-disc">
            {fit.misses.slice(0, missesShown).map((m, i) => (
              <li key={i}>
                Step {m.step}: {m.detail}.
              </li>
            ))}
          </ul>
          {fit.misses.length > missesShown && <p>And {fit.misses.length - missesShown} more.</p>}
        </>
      )}
      {!fit.does && fit.max_h_mm > 0 && (
        <p className="mt-1 font-semibold">
          At this width it works{" "}
          {fit.max_ratio - fit.min_ratio < 0.01
            ? `only about ${length(fit.min_h_mm, units)} high`
            : `from ${length(fit.min_h_mm, units)} to ${length(fit.max_h_mm, units)} high`}
          .
        </p>
      )}
      {fit.small && (
        <p className="mt-1">
          At step {fit.small_at} too little is left to hold. About{" "}
          {sheetSize(fit.least_w_mm, fit.least_h_mm, units)} is the least for this paper, by a rule of thumb.
        </p>
      )}
    </Caution>
  );
}

/** Ways from the sheet at hand to one that does: chosen in the slip. */
export function GetIt({
  fit,
  asked,
  action,
  onTake,
  onTurn,
}: {
  fit: Fit;
  asked: ReturnType<typeof useWanted>;
  action: string;
  onTake: (way: Way, want: Want) => void;
  /** The same sheet, turned a quarter. */
  onTurn: () => void;
}) {
  const { way, want } = asked;
  return (
    <div className="space-y-3">
      {fit.turned && (
        <Button weight="now" className="w-full text-lg" onClick={onTurn}>
          Turn the sheet a quarter and go on
        </Button>
      )}
      {fit.wants.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {fit.wants.map((w) => (
            <Button key={w.words} onClick={() => asked.take(w.want)}>
              {w.words}
            </Button>
          ))}
        </div>
      )}
      <WantFields asked={asked} />
      <WayList asked={asked} />
      {want && way?.corners === 4 && (way.steps.length > 0 || way.turned) && (
        <Button
          weight={fit.turned ? "main" : "now"}
          className="w-full text-lg"
          onClick={() => onTake(way, want)}
        >
          {action}
        </Button>
      )}
    </div>
  );
}

/** The other office size, explained. */
export function OtherOffice({ fit, own }: { fit: Fit; own: string }) {
  const units = useUnits();
  const o = fit.own;
  if (Math.abs(o.scale - 1) < 1e-6 && o.off_mm < 0.05) return null;
  return (
    <p className="text-sm">
      The pattern was written for {own}.{" "}
      {o.possible
        ? `That can be cut from this sheet.`
        : `That cannot be cut from this sheet at full size. ${sameProportions(o, units)}`}
    </p>
  );
}
