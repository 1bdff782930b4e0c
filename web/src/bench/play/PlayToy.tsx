import { Link } from "react-router";
import { playerOf } from "../../motions";
import { Caution } from "../../parts/controls";
import { Main } from "../../parts/Main";
import { usePrediction } from "../frame/usePrediction";
import type { Ready } from "../frame/useBench";

/** The toy on the screen alone, to be played: for the table, and for small hands. */
export function PlayToy({ ready }: { ready: Ready }) {
  const { build, good, setup, way } = ready;
  const { data: p, error } = usePrediction(ready, setup);
  const { Player } = p ? playerOf(p) : { Player: undefined };
  return (
    <Main
      title={`${build.name}: play`}
      className="fixed inset-0 z-30 flex flex-col gap-2 overflow-y-auto bg-ground p-4"
    >
      <div className="flex items-start justify-between gap-3">
        <h1 className="text-2xl">{build.name}</h1>
        <Link
          className="flex min-h-11 items-center border-2 border-ink bg-panel px-4 font-semibold"
          to={`/bench/${build.id}/set?look=motion`}
        >
          Back to the bench
        </Link>
      </div>
      {error && <Caution title="It cannot be played">{error.message}</Caution>}
      {!p ? (
        !error && <p role="status">{way.words.busy}</p>
      ) : Player ? (
        <Player
          prediction={p}
          colours={{ front: good.sheet.front, back: good.sheet.back }}
          of={{ pattern: build.pattern, setup, build: build.id }}
        />
      ) : (
        <p>{p.mode_words}</p>
      )}
    </Main>
  );
}
