import type { Replay } from "../../api/client";
import { Button } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { number } from "../../units";

/** Which face lies up at the start, by what shows at the end: both starts, side by side. */
export function FaceUp({ replay, onTurn }: { replay: Replay; onTurn: () => void }) {
  const { sheet, toy } = replay;
  const last = replay.steps.at(-1);
  if (!toy || !last) return null;
  if (sheet.front === sheet.back) {
    return (
      <section aria-labelledby="face-up">
        <h2 id="face-up" className="text-xl">
          Which side up
        </h2>
        <p>Both faces of this paper look alike: start with either side up.</p>
      </section>
    );
  }
  const [a, b] = [toy.faces_above, toy.faces_behind];
  const all = a.front_mm2 + a.back_mm2 + b.front_mm2 + b.back_mm2;
  const share = (a.front_mm2 + b.front_mm2) / all;
  const starts = [
    { key: "as", up: sheet.front, other: sheet.back, share, now: true },
    { key: "turned", up: sheet.back, other: sheet.front, share, now: false },
  ];
  return (
    <section aria-labelledby="face-up">
      <h2 id="face-up" className="text-xl">
        Which side up
      </h2>
      <p className="text-sm text-quiet">
        The side that lies up at the start is {number(100 * share, 0)} % of what shows on the finished toy,
        both sides counted, folded flat.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {starts.map((s) => (
          <div key={s.key} className={`border-2 p-2 ${s.now ? "border-ink" : "border-line"}`}>
            <PaperPicture
              picture={toy.round ?? last.after}
              colours={{ front: s.up, back: s.other }}
              label={s.now ? "The toy as the sheet lies now" : "The toy with the other side up at the start"}
              className="h-28 w-full"
            />
            <p className="flex items-center gap-2 text-sm">
              <span
                className="size-4 shrink-0 border border-ink"
                style={{ background: s.up }}
                aria-hidden="true"
              />
              {Boolean(sheet.turned) === s.now ? "back" : "front"} up
            </p>
            {s.now ? (
              <p className="text-sm font-semibold">so it lies now</p>
            ) : (
              <Button className="mt-1 w-full" onClick={onTurn}>
                Start so
              </Button>
            )}
          </div>
        ))}
      </div>
    </section>
  );
}
