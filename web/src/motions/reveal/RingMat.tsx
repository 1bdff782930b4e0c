import { useState } from "react";
import { Check, Choice } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { shares } from "../../parts/trialWords";
import { number } from "../../units";
import type { MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { FlexRing } from "./FlexRing";
import { JointMarks } from "./JointMarks";
import { StateGraph } from "./StateGraph";
import type { RingDrawing } from "./types";

/** A ring on the mat: flexed by hand, where one is, what to check before gluing, the strip. */
export function RingMat({ prediction, colours, of }: MatProps) {
  const ring = prediction.drawing?.data as RingDrawing;
  const [state, setState] = useState(0);
  const [look, setLook] = useState<"flex" | "check" | "strip">("flex");
  const [done, setDone] = useState<number[]>([]);
  const at = Math.min(state, ring.states.length - 1);
  return (
    <div className="flex min-w-0 flex-col gap-4" data-ring="">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100`}
      </p>
      <Choice<"flex" | "check" | "strip">
        label="Look at"
        value={look}
        options={[
          { value: "flex", label: "Flexing" },
          { value: "check", label: "Check before gluing" },
          { value: "strip", label: "The strip" },
        ]}
        onChange={setLook}
      />
      {look === "flex" && (
        <div className="grid items-start gap-4 md:grid-cols-2">
          <FlexRing ring={ring} at={at} colours={colours} of={of} onState={setState} />
          <StateGraph ring={ring} at={at} onState={setState} />
        </div>
      )}
      {look === "check" && (
        <div className="grid items-start gap-4 md:grid-cols-2" data-check="">
          <figure>
            <div className="relative">
              <PaperPicture
                picture={ring.check.picture}
                colours={colours}
                label={`Before gluing: places have ${ring.check.thick.join(", ")} layers`}
                className="h-[19rem] w-full"
              />
              <JointMarks picture={ring.check.picture} joints={ring.check.loose} words={["loose", "firm"]} />
            </div>
            <figcaption className="text-sm text-quiet">
              ▲ can be lifted with a fingertip, ■ is firm. Layers, place by place:{" "}
              {ring.check.thick.join(", ")}.
            </figcaption>
          </figure>
          <div>
            <h2 className="text-xl">Before you glue</h2>
            <ul className="space-y-1">
              {ring.check.items.map((text, i) => (
                <li key={i}>
                  <Check
                    checked={done.includes(i)}
                    onChange={(on) => setDone(on ? [...done, i] : done.filter((x) => x !== i))}
                  >
                    {text}
                  </Check>
                  {!done.includes(i) && (
                    <details className="pl-7 text-sm">
                      <summary className="min-h-9">It is not so</summary>
                      {ring.check.redo[i]}
                    </details>
                  )}
                </li>
              ))}
            </ul>
            <p className="mt-2 font-semibold">{ring.check.glue}</p>
          </div>
        </div>
      )}
      {look === "strip" && <Strip ring={ring} />}
      <PathTable
        summary="All states, and what each opens to"
        columns={["in front", "behind", "layers of the places", "joints that open", "leads to faces"]}
        rows={ring.states.map((s) => [
          String(s.front),
          String(s.behind),
          s.thick.join(", "),
          String(s.joints.filter((j) => j.opens).length),
          [...new Set(s.joints.filter((j) => j.opens).map((j) => ring.states[j.to]?.front))].join(", "),
        ])}
      >
        {shares(prediction)}. {prediction.mode_words}
      </PathTable>
    </div>
  );
}

/** The strip: numbers of its triangles, ways to 60°, and how it is joined from shorter ones. */
function Strip({ ring }: { ring: RingDrawing }) {
  return (
    <div className="grid items-start gap-4 md:grid-cols-2" data-strip="">
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Numbers of the triangles">
        <table className="text-center">
          <caption className="title mb-1 text-left text-lg">Numbers, as the folding gives them</caption>
          <thead>
            <tr className="text-sm text-quiet">
              <th scope="col" className="pr-3 text-left">
                Triangle
              </th>
              <th scope="col" className="px-3">
                Front
              </th>
              <th scope="col" className="px-3">
                Back
              </th>
            </tr>
          </thead>
          <tbody>
            {ring.labels.map(([front, back], i) => (
              <tr key={i} className="border-t border-line">
                <th scope="row" className="pr-3 text-left">
                  {i + 1}
                </th>
                <td className="font-bold">{front}</td>
                <td className="font-bold">{back}</td>
              </tr>
            ))}
            <tr className="border-t border-line">
              <th scope="row" className="pr-3 text-left">
                {ring.labels.length + 1}
              </th>
              <td colSpan={2}>glued to 1</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div className="space-y-3">
        <section>
          <h2 className="text-xl">The first 60°</h2>
          <ul className="space-y-2">
            {ring.angles.map((a) => (
              <li key={a.name}>
                <b>{a.name}.</b> {a.says}
                {a.deg.length > 1 && (
                  <span className="block text-sm text-quiet">
                    From {number(a.deg[0] ?? 60, 1)}°:{" "}
                    {a.deg
                      .slice(1)
                      .map((d) => `${number(d, 1)}°`)
                      .join(", ")}
                    .
                  </span>
                )}
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="text-xl">Length</h2>
          <p>{ring.join.says}</p>
          {ring.join.at.length > 0 && (
            <p className="text-sm">
              Triangles a strip: {ring.join.pieces.join(", ")}. Double at {ring.join.at.join(", ")}.
            </p>
          )}
        </section>
      </div>
    </div>
  );
}
