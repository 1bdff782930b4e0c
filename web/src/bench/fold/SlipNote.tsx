import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem } from "../../api/client";
import { question } from "../../api/queries";
import { Button, Choice, Field, Select } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { useUnits } from "../../settings";
import { parseLength, smallLength } from "../../units";
import type { Ready } from "../frame/useBench";

const verdicts = {
  accept: "Leave it: it hardly shows at the end",
  compensate: "Go on, and make up for it later",
  redo: "Open it and fold it again",
};

/** "I folded past": what it does at the end, and what makes up for it. */
export function SlipNote({ ready, step, onClose }: { ready: Ready; step: number; onClose: () => void }) {
  const units = useUnits();
  const { pattern, setup, good } = ready;
  const [way, setWay] = useState<"past" | "short" | "off">("past");
  const [landmark, setLandmark] = useState("");
  const [text, setText] = useState("2");
  const mm = parseLength(text, units);
  // What a slip here moves, to choose a landmark that was measured.
  const unit = useQuery(question.slip(pattern.id, step, setup, { past_mm: 1 }));
  const landmarks = (unit.data?.moved ?? []).map((m) => ({ value: m.name, label: m.words }));
  const named = landmark || landmarks[0]?.value;
  const slip =
    mm === undefined
      ? undefined
      : way === "off"
        ? named === undefined
          ? undefined
          : { landmark: named, off_mm: mm }
        : { past_mm: way === "past" ? mm : -mm };
  const found = useQuery(question.slip(pattern.id, step, setup, slip));
  const q = found.data;
  const refused = found.error instanceof Problem ? found.error.message : undefined;
  const colours = { front: good.sheet.front, back: good.sheet.back };
  return (
    <section aria-label="My slip" className="space-y-2 border-2 border-ink p-3">
      <Choice
        label="What was brought"
        value={way}
        options={[
          { value: "past", label: "went past" },
          { value: "short", label: "fell short" },
          { value: "off", label: "or a landmark is off at the end" },
        ]}
        onChange={setWay}
      />
      {way === "off" && landmarks.length > 0 && (
        <Select label="Which one" value={named ?? ""} options={landmarks} onChange={setLandmark} />
      )}
      <Field
        label="By how much"
        unit={units}
        value={text}
        problem={mm === undefined ? `“${text}” is no length; write for example 2` : refused}
        onChange={(e) => setText(e.target.value)}
      />
      {q && !refused && slip !== undefined && (
        <div aria-live="polite" className="space-y-2">
          <p className="title text-xl">{verdicts[q.verdict]}</p>
          {way === "off" && (
            <p>
              That comes from folding about {smallLength(q.past_mm, units)} past or short here, if it is this
              step.
            </p>
          )}
          <p>
            At the end{" "}
            {q.moved.length > 0
              ? q.moved
                  .slice(0, 2)
                  .map((m) => `${m.words} lies ${smallLength(m.mm, units)} off`)
                  .join(", ")
              : "nothing moves"}
            ; it balances {smallLength(q.com_mm, units, 2)} off.
          </p>
          {q.remedies.length > 0 && (
            <ul className="list-inside list-disc">
              {q.remedies.map((r) => (
                <li key={r.step}>
                  At step {r.step} fold {smallLength(Math.abs(r.past_mm), units)}{" "}
                  {r.past_mm > 0 ? "past" : "short"}: that leaves {smallLength(r.left_mm, units)} of{" "}
                  {smallLength(q.rms_mm, units)}.
                </li>
              ))}
            </ul>
          )}
          <div className="grid grid-cols-2 gap-2 text-sm">
            <figure>
              <PaperPicture
                picture={q.right}
                colours={colours}
                label="The toy without the slip"
                className="h-28 w-full"
              />
              <figcaption>without the slip</figcaption>
            </figure>
            <figure>
              <PaperPicture
                picture={q.picture}
                colours={colours}
                label="The toy with the slip"
                className="h-28 w-full"
              />
              <figcaption>with it</figcaption>
            </figure>
          </div>
          {q.rest.length > 0 && (
            <div>
              <p className="text-sm font-semibold">If you fold on with it</p>
              <ol className="flex gap-1 overflow-x-auto">
                {q.rest.map((r) => (
                  <li key={r.no} className="shrink-0 text-center text-xs">
                    <PaperPicture thin picture={r.picture} colours={colours} label="" className="h-16 w-14" />
                    {r.no}
                  </li>
                ))}
              </ol>
              {q.stops && <p className="text-sm">Then it cannot be folded on: {q.stops}</p>}
            </div>
          )}
          <p className="text-sm text-quiet">Predicted, to first order; off is the mean over all landmarks.</p>
        </div>
      )}
      <Button onClick={onClose}>Close</Button>
    </section>
  );
}
