import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { question } from "../../api/queries";
import { Button } from "../../parts/controls";
import { PaperPicture, type FaceColours } from "../../parts/PaperPicture";
import { useStill } from "../../parts/useStill";
import type { PlayProps } from "../drawing";
import { JointMarks } from "./JointMarks";
import type { RingDrawing } from "./types";

/** How long a flex takes, ms. */
const takes = 1600;

/** A ring in the round: which joints open, and the pinch from one state to the next. */
export function FlexRing({
  ring,
  at,
  colours,
  of,
  onState,
  big = false,
}: {
  ring: RingDrawing;
  at: number;
  colours: FaceColours;
  of?: PlayProps["of"] | undefined;
  onState: (state: number) => void;
  big?: boolean;
}) {
  const still = useStill();
  const [step, setStep] = useState<{ from: number; to: number } | null>(null);
  const [part, setPart] = useState(0);
  const state = ring.states[at];
  const between = useQuery(
    question.between(of?.pattern ?? "", of?.setup ?? ({} as PlayProps["of"]["setup"]), of ? step : null),
  );
  const frames = between.data?.pictures;
  const failed = between.isError;
  useEffect(() => {
    if (!step || (!frames && !failed)) return undefined;
    const began = performance.now();
    let frame = requestAnimationFrame(function next(now) {
      // Without pictures of the way it is there at once: nobody is stuck in the middle.
      const t = failed ? 1 : Math.min(1, (now - began) / takes);
      setPart(t);
      if (t < 1) frame = requestAnimationFrame(next);
      else {
        onState(step.to);
        setStep(null);
      }
    });
    return () => cancelAnimationFrame(frame);
  }, [step, frames, failed, onState]);
  if (!state) return null;
  const go = (to: number) => {
    if (still || !of) onState(to);
    else {
      setPart(0);
      setStep({ from: at, to });
    }
  };
  const moving = step !== null && frames;
  const picture = (moving && frames[Math.round(part * (frames.length - 1))]) || state.picture;
  const flexes = [...new Set(state.joints.filter((j) => j.opens).map((j) => j.to))];
  return (
    <figure className="min-w-0" data-flexing={step ? "" : undefined}>
      <div className="relative">
        <PaperPicture
          picture={picture}
          view={state.picture.view}
          colours={colours}
          label={`Face ${state.front} in front, ${state.behind} behind; ${state.joints.filter((j) => j.opens).length} joints open`}
          className={big ? "h-[min(52dvh,30rem)] w-full" : "h-[20rem] w-full"}
        />
        {!step && (
          <JointMarks
            picture={state.picture}
            joints={state.joints}
            words={["opens", "solid"]}
            onJoint={(i) => {
              const to = state.joints[i]?.to;
              if (to !== undefined && to >= 0) go(to);
            }}
          />
        )}
      </div>
      <p className="title text-2xl" data-front={state.front} role="status">
        Face {state.front} in front, {state.behind} behind
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        {flexes.map((to, i) => (
          <Button key={to} disabled={step !== null} onClick={() => go(to)}>
            Flex at {i === 0 ? "▲ these joints" : "the other joints"}: face {ring.states[to]?.front}
          </Button>
        ))}
        <Button disabled={step !== null} onClick={() => onState(state.over)}>
          Turn it over
        </Button>
      </div>
      <figcaption className="mt-1 text-sm text-quiet">
        ▲ opens, ■ is solid and never does. Pinch the two places beside a ▲ together, push in the joint
        across, and open it from the middle; if it will not open, move on by one joint.
      </figcaption>
    </figure>
  );
}
