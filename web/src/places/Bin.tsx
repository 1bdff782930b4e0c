import { useQuery, useQueryClient } from "@tanstack/react-query";
import { toast } from "../toast";
import { api } from "../api/client";
import { question, changed } from "../api/queries";
import { Button, Caution } from "../parts/controls";
import { useUnits } from "../settings";
import { offerUndo, type Back } from "../undo";
import { sizeOf } from "../parts/trialWords";
import { useMoves } from "../parts/useMoves";
import { Main } from "../parts/Main";

/** What has been thrown away, and how to get it back. */
export function Bin() {
  const units = useUnits();
  const ways = useMoves();
  const queries = useQueryClient();
  const bin = useQuery(question.bin());
  const restore = async (what: string, call: Promise<unknown>, back: Back) => {
    try {
      await call;
      await changed.everything(queries);
      offerUndo(`${what} is back`, back);
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be restored.");
    }
  };
  const wordsOf = (t: (typeof trials)[number]) => {
    const way = ways?.find((w) => w.name === t.moves);
    return way ? `The ${way.words.one}${sizeOf(t.trial, way, units)}` : "The trial";
  };
  const { builds = [], trials = [], papers = [], packs = [] } = bin.data ?? {};
  const row = "flex items-center justify-between gap-4 border-t border-line py-2";
  return (
    <Main title="Bin" className="mx-auto w-full max-w-[60rem] grow p-4 sm:p-6">
      <h1 className="text-3xl">Bin</h1>
      {bin.error && <Caution title="The bin cannot be shown">{bin.error.message}</Caution>}
      {bin.data && builds.length + trials.length + papers.length + packs.length === 0 && (
        <p className="mt-2 text-lg">
          The bin is empty. What you throw away lies here until you take it back.
        </p>
      )}
      <ul className="mt-3">
        {builds.map((b) => (
          <li key={`b${b.id}`} className={row}>
            <span>
              <b>{b.name}</b>, a build of {b.title} with {b.trials}{" "}
              {ways?.find((w) => w.name === b.moves)?.words.many ?? "trials"}
            </span>
            <Button
              onClick={() => void restore(b.name, api.restoreBuild(b.id), { do: "bin build", id: b.id })}
              aria-label={`Restore ${b.name}`}
            >
              Restore
            </Button>
          </li>
        ))}
        {trials.map((t) => (
          <li key={`t${t.id}`} className={row}>
            <span>
              {wordsOf(t)}, {t.build_name}, tweak {t.tweak}
            </span>
            <Button
              onClick={() => void restore(wordsOf(t), api.restoreTrial(t.id), { do: "bin trial", id: t.id })}
            >
              Restore
            </Button>
          </li>
        ))}
        {packs.map((p) => (
          <li key={p.id} className={row}>
            <span>
              <b>{p.title}</b>, a pack
            </span>
            <Button
              onClick={() => void restore(p.title, api.restorePack(p.id), { do: "bin pack", pack: p.id })}
              aria-label={`Restore ${p.title}`}
            >
              Restore
            </Button>
          </li>
        ))}
        {papers.map((p) => (
          <li key={`p${p.id}`} className={row}>
            <span>
              <b>{p.name}</b>, a paper
            </span>
            <Button
              onClick={() => void restore(p.name, api.restorePaper(p.id), { do: "bin paper", id: p.id })}
              aria-label={`Restore ${p.name}`}
            >
              Restore
            </Button>
          </li>
        ))}
      </ul>
    </Main>
  );
}
