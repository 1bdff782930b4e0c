import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type StepLook } from "../../api/client";
import { question } from "../../api/queries";
import { PaperPicture } from "../../parts/PaperPicture";
import type { Ready } from "../frame/useBench";

const corners = ["lower left", "lower right", "upper right", "upper left", "middle"];

/** The flat sheet with its creases beside the folded paper: a point in one is shown in the other. */
export function CreaseMap({ ready, step, look }: { ready: Ready; step: number; look: StepLook | undefined }) {
  const { pattern, setup, good } = ready;
  const [spot, setSpot] = useState<{ step: number; x: number; y: number } | null>(null);
  const found = useQuery(question.whence(pattern.id, setup, spot));
  const s = good.steps[step - 1];
  if (!look || !s) return <p aria-busy="true">Unfolding …</p>;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  const { width_mm: w, height_mm: h } = good.sheet;
  const places = [
    [0, 0],
    [w, 0],
    [w, -h],
    [0, -h],
    [w / 2, -h / 2],
  ];
  const point = found.data;
  const earlier = point?.steps.slice(0, step) ?? [];
  return (
    <section aria-label="Crease map" className="space-y-2 border-2 border-ink p-3">
      <p>Press a spot on the flat sheet or on the folded paper to see where it is in the other.</p>
      <div className="grid grid-cols-2 gap-2">
        <figure>
          <PaperPicture
            picture={look.map.picture}
            next={look.map.over}
            colours={colours}
            hold={point?.sheet}
            label="Crease map of the flat sheet, front side up"
            className="h-48 w-full cursor-crosshair"
            onPoint={(x, y) => setSpot({ step: 0, x, y })}
          />
          <figcaption className="text-sm">flat sheet</figcaption>
        </figure>
        <figure>
          <PaperPicture
            picture={s.after}
            colours={colours}
            hold={point?.steps[step - 1]?.at}
            label={`The paper after step ${step}`}
            className="h-48 w-full cursor-crosshair"
            onPoint={(x, y) => setSpot({ step, x, y })}
          />
          <figcaption className="text-sm">after step {step}</figcaption>
        </figure>
      </div>
      <div role="group" aria-label="Corners and middle of the sheet" className="flex flex-wrap gap-1">
        {corners.map((name, i) => (
          <button
            key={name}
            type="button"
            className="min-h-9 border border-ink bg-panel px-2 text-sm"
            onClick={() => setSpot({ step: 0, x: places[i]?.[0] ?? 0, y: places[i]?.[1] ?? 0 })}
          >
            {name}
          </button>
        ))}
      </div>
      <div aria-live="polite">
        {found.error && <p className="text-sm">{found.error.message}</p>}
        {point && (
          <>
            <p className="font-semibold">{point.words}</p>
            <ol className="flex gap-1 overflow-x-auto">
              {earlier.map(({ at }, i) => {
                const e = good.steps[i];
                return (
                  e && (
                    <li key={e.no} className="shrink-0 text-center text-xs">
                      <PaperPicture
                        thin
                        picture={e.after}
                        hold={at}
                        colours={colours}
                        label=""
                        className="h-14 w-14"
                      />
                      {e.no}
                      {at === undefined && " off"}
                    </li>
                  )
                );
              })}
            </ol>
          </>
        )}
      </div>
    </section>
  );
}
