import { useQuery } from "@tanstack/react-query";
import type { Overlay, Picture } from "../../api/client";
import { question } from "../../api/queries";
import { PaperPicture } from "../../parts/PaperPicture";
import { usePlainPaper } from "../../paper";

/** What stands on a picture, as the explanations call it. */
function standing(next: Overlay): Set<string> {
  return new Set([
    ...next.strokes.map((s) => `stroke ${s.kind}`),
    ...next.arrows.map((a) => `arrow ${a.kind}`),
    ...next.signs.map((s) => `sign ${s.kind}`),
    ...(next.sizes?.length ? ["size"] : []),
    ...(next.moving.length ? ["moving"] : []),
  ]);
}

const none: Picture = { view: [0, 0, 1, 1], faces: [] };

/** The lines, arrows and signs of one picture, explained. */
export function Legend({ next, className = "" }: { next: Overlay; className?: string }) {
  const colours = usePlainPaper();
  const keys = useQuery(question.signs()).data;
  if (!keys) return null;
  const here = standing(next);
  return (
    <ul aria-label="Signs in this picture" className={`flex flex-wrap gap-x-4 gap-y-1 text-sm ${className}`}>
      {keys
        .filter((k) => here.has(k.for))
        .map((k) => (
          <li key={k.for} className="flex items-center gap-1">
            <span className="bg-[#fdf8ea] text-[#10302f]">
              <PaperPicture
                thin
                picture={none}
                next={k.over}
                view={k.over.view}
                colours={colours}
                label=""
                className="h-6 w-14"
              />
            </span>
            {k.says}
          </li>
        ))}
    </ul>
  );
}
