import { replaceEqualDeep, useQuery, useQueryClient, skipToken } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { toast } from "../../toast";
import {
  api,
  Problem,
  type Build,
  type Moving,
  type Pattern,
  type Replay,
  type Setup,
} from "../../api/client";

import { useMoves } from "../../parts/useMoves";
import { movesOf } from "../../api/moves";
import { noteUndo, offerUndo } from "../../undo";
import { useDraft } from "./useDraft";
import { callOff, question, changed, know } from "../../api/queries";

export type Stretch = "paper" | "fold" | "set" | "try" | "tune";
export const stretches: Stretch[] = ["paper", "fold", "set", "try", "tune"];

/** The tweak that lies on the table, beneath the draft. */
export const onTable = (b: Build) => b.tweaks.find((t) => t.no === b.at);

/** How long a reason may be. */
const longestWhy = 500;

/** A value as it was when it last rested for so many ms. */
function useRested<T>(value: T | undefined, ms: number): T | undefined {
  const [rested, setRested] = useState(value);
  if (rested === undefined && value !== undefined) setRested(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return rested ?? value;
}

/** A build, the set-up that is being tried out on it, and what that folds into. */
export function useBench(id: number) {
  const queries = useQueryClient();
  const build = useQuery(question.build(id));
  const patterns = useQuery(question.patterns());
  const show = useCallback(
    (b: Build) => {
      know.build(queries, b);
      void changed.builds(queries);
    },
    [queries],
  );
  const draft = useDraft(id, build.data, show);
  const { setup } = draft;
  // While the motion is looked at, it is asked for first; the pictures of the steps follow
  // when the dial rests.
  const [search] = useSearchParams();
  const later = useRested(setup, 150);
  const moving = useRested(setup, 700) !== setup;
  useEffect(() => {
    if (moving) void callOff(queries);
  }, [moving, queries]);
  const folded = search.get("look") === "motion" ? later : setup;
  // Steps that a knob leaves alone stay the same objects, so that their pictures rest.
  const before = useRef<Replay | undefined>(undefined);
  const replay = useQuery({
    ...question.replay(build.data?.pattern, folded),
    queryFn:
      build.data && folded
        ? async ({ signal }) => {
            const fresh = await api.replay(build.data.pattern, folded, signal);
            const shared = before.current ? replaceEqualDeep(before.current, fresh) : fresh;
            before.current = shared;
            return shared;
          }
        : skipToken,
  });
  const view = replay.data;
  // The last good state stays on the mat while a fold cannot be made.
  const [good, setGood] = useState<Replay>();
  if (view?.ok && view !== good) setGood(view);

  /** Runs a change of the build and says what was refused. */
  const change = async (call: Promise<Build>): Promise<Build | undefined> => {
    try {
      const b = await call;
      show(b);
      return b;
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "That did not work.");
      // Somebody else may have been faster: then it is shown as it is now.
      if (e instanceof Problem && e.status === 409) await changed.build(queries, id);
      return undefined;
    }
  };
  // As it is after what this page has just kept, not as it was when it was drawn last.
  const known = () => queries.getQueryData(question.build(id).queryKey);
  const seen = () => known()?.version ?? 1;
  const pattern = patterns.data?.find((p) => p.id === build.data?.pattern);
  const way = useMoves()?.find((w) => w.name === pattern?.way);
  return {
    build: build.data,
    problem: build.error ?? replay.error,
    pattern,
    way,
    setup,
    /** Whether a dial has moved within the last moment. */
    moving,
    view,
    good: view?.ok ? view : (good ?? view),
    tryOut: draft.tryOut,
    /** Shows a set-up and keeps it; false when it could not be kept. */
    keep: draft.keep,
    version: draft.version,
    crossed: draft.crossed,
    change,
    /** Makes what lies on the table a tweak, as this page has seen it. */
    settle: async (why: string) => {
      // Moved to where a tweak has it, that tweak lies there already.
      if (known()?.draft === false) return known();
      const b = await change(api.makeTweak(id, seen(), why.slice(0, longestWhy)));
      if (b) noteUndo(`tweak ${b.at} is made`, { do: "withdraw tweak", id, no: b.at });
      return b;
    },
    /** Makes it a child build. */
    child: async () => {
      const before = known();
      const b = await change(api.makeChild(id, seen()));
      const parent = b && before && (await queries.query({ ...question.build(id), staleTime: 0 }));
      if (b && parent)
        noteUndo(
          `${b.name} is on the bench`,
          { do: "bin build", id: b.id },
          { do: "move", id, moves: movesOf(parent.setup, before.setup, 0) },
        );
      return b;
    },
    show,
    putBack: async () => {
      draft.drop();
      const before = known();
      if (!before?.draft) return;
      const b = await change(api.discardDraft(id, seen()));
      if (b)
        offerUndo("What was moved is put back", {
          do: "move",
          id,
          moves: movesOf(b.setup, before.setup, 0),
        });
    },
    /** Keeps how far it is folded. */
    foldTo: async (step: number) => {
      const was = known()?.step;
      if (was === undefined || was === step) return;
      if (await change(api.keepStep(id, step)))
        noteUndo("how far it is folded", { do: "fold to", id, step: was });
    },
  };
}

export type BenchState = ReturnType<typeof useBench>;

/** A bench whose build, pattern and pictures are there. */
export interface Ready {
  bench: BenchState;
  build: Build;
  pattern: Pattern;
  /** How the toy moves, and all that is asked and told of that. */
  way: Moving;
  setup: Setup;
  good: Replay;
}
