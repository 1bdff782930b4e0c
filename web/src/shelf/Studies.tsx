import { Link } from "react-router";
import type { StudyCard } from "../api/client";
import { usePlainPaper } from "../paper";
import { PaperPicture } from "../parts/PaperPicture";

/** What is looked at or folded besides the toys. */
export function Studies({ id, title, list }: { id: string; title: string; list: StudyCard[] }) {
  const plain = usePlainPaper();
  return (
    <section className="mt-8" aria-labelledby={id}>
      <h2 id={id} className="border-b-2 border-ink pb-1 text-2xl">
        {title}
      </h2>
      <ul className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-3 xl:grid-cols-5">
        {list.map((s) => (
          <li key={s.id} className="border border-line bg-panel">
            <Link to={`/study/${s.id}`} className="flex h-full flex-col p-3 hover:bg-ground">
              {s.picture && (
                <PaperPicture thin picture={s.picture} colours={plain} label="" className="h-24 w-full" />
              )}
              <span className="title mt-2 block">{s.title}</span>
              <span className="block text-sm text-quiet">
                {s.goes_to.length > 0
                  ? `${s.good}; goes with ${s.goes_to.map((g) => g.title).join(", ")}`
                  : `${s.steps} ${s.steps === 1 ? "step" : "steps"}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
