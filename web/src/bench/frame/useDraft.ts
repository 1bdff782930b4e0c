import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { toast } from "../../toast";
import { api, Problem, type Build, type Setup } from "../../api/client";
import { question } from "../../api/queries";
import { noteUndo } from "../../undo";
import { back, isNothing, laid, movesOf, onTop, without, type Moves } from "../../api/moves";

/** What a hand has moved, for the list of what can be taken back. */
const wordsOf = (m: Moves) =>
  m.sheet
    ? "another sheet"
    : m.written
      ? "what was written"
      : Object.keys(m.knobs).length > 0
        ? "what was moved"
        : "how a length is found";

/**
 * The set-up on the table with what a hand moves on it. Only what was moved is sent, one
 * save after the other; what another device moves meanwhile stays, and where both moved
 * the same thing the person is asked.
 */
export function useDraft(id: number, build: Build | undefined, show: (b: Build) => void) {
  const queries = useQueryClient();
  const [hand, setHand] = useState<Moves | null>(null);
  const [crossed, setCrossed] = useState<Problem | null>(null);
  const setup = useMemo(() => build && laid(build.setup, hand), [build, hand]);
  // Saves and pages that close need what holds now, not what held when they were made.
  const now = useRef({ hand, setup, show });
  useEffect(() => {
    now.current.setup = setup;
    now.current.show = show;
  }, [setup, show]);
  const known = useCallback(() => queries.getQueryData(question.build(id).queryKey), [queries, id]);
  const take = useCallback((m: Moves | null) => {
    now.current.hand = m;
    setHand(m);
  }, []);
  const tryOut = useCallback(
    (next: Setup) => {
      const b = known();
      const shown = now.current.setup;
      if (!b || !shown) return;
      const m = onTop(now.current.hand, movesOf(shown, next, b.version));
      now.current.setup = laid(b.setup, m);
      take(m);
    },
    [known, take],
  );
  const send = useCallback(async (): Promise<boolean> => {
    const m = now.current.hand;
    const before = known();
    if (!m || !before) return true;
    const moved = movesOf(before.setup, laid(before.setup, m), m.version);
    if (isNothing(moved)) {
      take(without(now.current.hand, m, before.version));
      return true;
    }
    try {
      const b = await api.moveDraft(id, moved);
      now.current.show(b);
      take(without(now.current.hand, m, b.version));
      setCrossed(null);
      noteUndo(wordsOf(moved), { do: "move", id, moves: back(moved, before.setup) });
      return true;
    } catch (e) {
      if (e instanceof Problem && e.status === 409) {
        now.current.show(await api.build(id));
        setCrossed(e);
      } else if (!(e instanceof Problem && e.status === 422)) {
        // A set-up that cannot be folded is not kept; the slip says why.
        toast.error(e instanceof Error ? e.message : "The draft could not be kept.");
      }
      return false;
    }
  }, [id, known, take]);
  const saving = useRef(Promise.resolve(true));
  const keep = useCallback(
    (next: Setup): Promise<boolean> => {
      tryOut(next);
      saving.current = saving.current.then(send, send);
      return saving.current;
    },
    [send, tryOut],
  );
  useEffect(() => {
    // A knob moved just before the page is left is kept all the same.
    const leave = () => {
      if (now.current.hand) void api.moveDraft(id, now.current.hand, true).catch(() => undefined);
    };
    window.addEventListener("pagehide", leave);
    return () => window.removeEventListener("pagehide", leave);
  }, [id]);
  const drop = useCallback(() => {
    take(null);
    setCrossed(null);
  }, [take]);
  return {
    setup,
    /** What a page that logs a trial showed. */
    version: hand?.version ?? build?.version ?? 1,
    tryOut,
    keep,
    drop,
    crossed: crossed && {
      problem: crossed,
      theirs: drop,
      mine: () => {
        const b = known();
        if (now.current.hand && b) take({ ...now.current.hand, version: b.version });
        setCrossed(null);
        saving.current = saving.current.then(send, send);
        return saving.current;
      },
    },
  };
}
