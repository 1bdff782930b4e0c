import { useState } from "react";
import type { PlayProps } from "../drawing";
import { FlexRing } from "./FlexRing";
import type { RingDrawing } from "./types";

/** A ring that is flexed on the screen; faces that were found are counted. */
export function PlayRing({ prediction, colours, of }: PlayProps) {
  const ring = prediction.drawing?.data as RingDrawing;
  const [state, setState] = useState(0);
  const [found, setFound] = useState<number[]>([]);
  const front = ring.states[state]?.front ?? 1;
  const all = [...new Set([...found, front])].sort((a, b) => a - b);
  return (
    <div className="mx-auto flex w-full max-w-[40rem] grow flex-col gap-3">
      <FlexRing
        big
        ring={ring}
        at={state}
        colours={colours}
        of={of}
        onState={(s) => {
          setFound(all);
          setState(s);
        }}
      />
      <p className="title text-xl" data-found={all.length}>
        Found: {all.length} of {ring.faces} faces ({all.join(", ")})
      </p>
    </div>
  );
}
