import { useEffect, useState } from "react";
import { Link } from "react-router";
import { Button } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { useStill } from "../../parts/useStill";
import type { PlayProps } from "../drawing";
import type { TellerDrawing } from "./types";

/** Where a game stands: what was chosen, and the moves that are still to be made. */
interface Game {
  word: number | null;
  counted: number[];
  opened: number | null;
  /** Pulls that are left of the word or number being spelled. */
  left: number;
  /** All of them. */
  of: number;
  /** Which way it is open: 0, 1, or shut. */
  open: 0 | 1 | null;
}

const begin: Game = { word: null, counted: [], opened: null, left: 0, of: 0, open: null };

/** How long a pull takes, ms. */
const pull = 620;

/** A fortune teller played on the screen: spell a word, count numbers, lift a flap. */
export function PlayTeller({ prediction, colours, of }: PlayProps) {
  const teller = prediction.drawing?.data as TellerDrawing;
  const still = useStill();
  const [game, setGame] = useState<Game>(begin);
  const [part, setPart] = useState(0);
  const moving = game.left > 0;
  // Each pull opens it the other way: from shut, left and right first.
  useEffect(() => {
    if (!moving) return undefined;
    const turn = setTimeout(() => {
      setGame((g) => ({ ...g, left: g.left - 1, open: g.open === 0 ? 1 : 0 }));
      setPart(still ? 1 : 0);
    }, pull);
    return () => clearTimeout(turn);
  }, [moving, game.left, still]);
  useEffect(() => {
    if (game.open === null || part >= 1) return undefined;
    const frame = requestAnimationFrame(() => setPart((p) => Math.min(1, p + 0.06)));
    return () => cancelAnimationFrame(frame);
  }, [game.open, part]);
  const opens = game.open === null ? undefined : teller.opens[game.open];
  const picture = opens?.frames[Math.round(part * (opens.frames.length - 1))] ?? teller.shut;
  const word = game.word === null ? undefined : teller.words[game.word];
  const spelled = word?.letters ?? [];
  const current = game.counted.length === 0 ? game.word !== null : true;
  const said = moving && current ? game.of - game.left : 0;
  const choose = (half: number) => {
    const h = teller.halves[half - 1];
    if (!h) return;
    if (game.counted.length < teller.rounds)
      setGame({ ...game, counted: [...game.counted, half], left: h.moves, of: h.moves });
    else setGame({ ...game, opened: half });
  };
  const message = game.opened === null ? undefined : teller.halves[game.opened - 1];
  const log = [word?.word, ...game.counted.map((h) => teller.halves[h - 1]?.number), message?.number].filter(
    Boolean,
  );
  const ask =
    game.word === null
      ? "Choose a word. It is spelled, a move for every letter."
      : moving
        ? game.counted.length === 0
          ? (spelled[said] ?? spelled.at(-1) ?? "")
          : String(said + 1)
        : message
          ? ""
          : game.counted.length < teller.rounds
            ? "Choose a number. It is counted."
            : "Choose a number. Its flap is lifted.";
  return (
    <div className="flex grow flex-col items-center gap-3" data-game="">
      <PaperPicture
        picture={picture}
        colours={colours}
        label={opens ? `Open ${opens.title}` : "Shut, four points together"}
        className="h-[min(44dvh,26rem)] w-full max-w-[36rem]"
      />
      <p className={moving ? "figure text-6xl" : "title text-center text-2xl"} role="status" data-ask="">
        {ask}
      </p>
      {message && (
        <div
          className="w-full max-w-[34rem] border-2 border-on-mark bg-[#fdf8ea] p-4 text-center text-[#10302f]"
          data-message=""
        >
          <p className="text-sm">Under {message.number || "the flap"}:</p>
          <p className="title text-3xl">{message.message || "nothing is written there yet"}</p>
        </div>
      )}
      {!moving && (
        <div className="flex w-full max-w-[34rem] flex-wrap justify-center gap-2">
          {game.word === null &&
            teller.words.map((w, i) => (
              <button
                key={i}
                type="button"
                className="min-h-16 min-w-32 grow border-2 border-ink px-4 text-xl font-bold text-[#10302f]"
                style={{ background: w.colour || "#fdf8ea" }}
                disabled={w.word === ""}
                onClick={() => {
                  const n = w.moves;
                  setGame({ ...begin, word: i, left: n, of: n });
                }}
              >
                {w.word || "empty"}
              </button>
            ))}
          {game.word !== null &&
            game.opened === null &&
            (game.open === null ? teller.halves.map((_, i) => i + 1) : (opens?.shows ?? [])).map((h) => (
              <Button key={h} className="min-h-16 min-w-20 grow text-2xl" onClick={() => choose(h)}>
                {teller.halves[h - 1]?.number || "–"}
              </Button>
            ))}
          {message && (
            <>
              <Button weight="now" className="grow" onClick={() => (setGame(begin), setPart(0))}>
                Play again
              </Button>
              <Link
                className="flex min-h-11 grow items-center justify-center border-2 border-ink bg-panel px-4 font-semibold"
                to={`/bench/${of.build}/try?kind=play&came=${game.opened ?? ""}&rounds=${game.counted.length}`}
              >
                Log what came up
              </Link>
            </>
          )}
        </div>
      )}
      {log.length > 0 && <p className="text-sm text-quiet">So far: {log.join(", ")}</p>}
      {teller.assumed && (
        <p className="text-sm text-quiet">
          Nothing is written on it yet: it is played with usual words and 1 to 8.
        </p>
      )}
    </div>
  );
}
