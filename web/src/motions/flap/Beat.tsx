import { Button } from "../../parts/controls";

/** Moves a beat by hand, or lets it beat. */
export function Beat({
  label,
  words,
  at,
  beating,
  move,
  beat,
}: {
  label: string;
  /** The moment in words. */
  words: string;
  at: number;
  beating: boolean;
  move: (at: number) => void;
  beat: (on: boolean) => void;
}) {
  return (
    <div className="flex items-center gap-3">
      <Button className="shrink-0 whitespace-nowrap" aria-pressed={beating} onClick={() => beat(!beating)}>
        {beating ? "Stop" : "Let it beat"}
      </Button>
      <input
        type="range"
        className="h-9 grow accent-ink"
        aria-label={label}
        aria-valuetext={words}
        min={0}
        max={1}
        step={0.01}
        value={at}
        onChange={(e) => move(Number(e.target.value))}
      />
    </div>
  );
}
