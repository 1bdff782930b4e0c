import { useSeeing, type Seeing } from "./folding";

/** Mirror view, the way the flap moves, hidden layers. */
export function SeeingChoice() {
  const [see, change] = useSeeing();
  const box = "flex min-h-11 items-center gap-2";
  return (
    <div role="group" aria-label="How steps are shown" className="flex flex-wrap items-center gap-x-4">
      <label className={box}>
        <input
          type="checkbox"
          className="size-5 accent-ink"
          checked={see.mirror}
          onChange={(e) => change({ mirror: e.target.checked })}
        />
        mirror image
      </label>
      <label className={box}>
        <input
          type="checkbox"
          className="size-5 accent-ink"
          checked={see.xray}
          onChange={(e) => change({ xray: e.target.checked })}
        />
        hidden edges
      </label>
      <label className={box}>
        <input
          type="checkbox"
          className="size-5 accent-ink"
          checked={see.brief}
          onChange={(e) => change({ brief: e.target.checked })}
        />
        few words
      </label>
      <label className={box}>
        folds go
        <select
          className="min-h-11 border-2 border-ink bg-panel px-2"
          value={see.turn}
          onChange={(e) => change({ turn: e.target.value as Seeing["turn"] })}
        >
          <option value="drawn">as drawn</option>
          <option value="away">away from me</option>
          <option value="toward">towards me</option>
        </select>
      </label>
    </div>
  );
}
