import { useState } from "react";
import { Choice } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { shares } from "../../parts/trialWords";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";
import type { MatProps } from "../drawing";
import { PathTable } from "../PathTable";
import { Scrubber } from "../Scrubber";
import { FingersCard } from "./FingersCard";
import { Odds } from "./Odds";
import type { TellerDrawing } from "./types";
import { WrittenPlay } from "./WrittenPlay";

/** A fortune teller on the mat: both openings, what comes up how often, the fingers. */
export function TellerMat({ prediction, colours, of, onWrite }: MatProps) {
  const teller = prediction.drawing?.data as TellerDrawing;
  const units = useUnits();
  const [way, setWay] = useState<"0" | "1">("0");
  const [at, setAt] = useState(1);
  const opens = teller.opens[Number(way)] ?? teller.opens[0];
  const picture = opens?.frames[Math.round(at * (opens.frames.length - 1))] ?? teller.shut;
  const mm = (v: number) => smallLength(v, units);
  const shows = (opens?.shows ?? []).map((h) => teller.halves[h - 1]?.number).join(", ");
  const fair = () => {
    if (!of || !onWrite) return;
    const written = { ...of.setup.written };
    teller.halves.forEach((h, i) => {
      const name = `number ${i + 1}`;
      const change = teller.changes.find((c) => c.half === i + 1);
      written[name] = { ...written[name], text: change?.to ?? h.number };
    });
    onWrite(written);
  };
  return (
    <div className="flex min-w-0 flex-col gap-4">
      <p className="title text-xl" data-mode={prediction.mode}>
        Predicted: {prediction.mode}
        {prediction.modes[0] && `, ${number(100 * prediction.modes[0].share, 0)} of 100`}
      </p>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <figure className="min-w-0">
          <PaperPicture
            picture={picture}
            colours={colours}
            label={`Opened ${opens?.title ?? ""}: ${shows} show`}
            className="h-[19rem] w-full"
          />
          <Choice<"0" | "1">
            label="Pulled apart"
            value={way}
            options={teller.opens.map((o, i) => ({ value: i === 0 ? "0" : "1", label: o.title }))}
            onChange={(v) => {
              setWay(v);
              setAt(1);
            }}
          />
          <div className="mt-2">
            <Scrubber
              label="How far it is open"
              words={`${number(100 * at, 0)} per cent`}
              at={at}
              end={1}
              rate={0.8}
              play="Open it"
              onMove={setAt}
            />
          </div>
          <figcaption className="mt-1 text-sm text-quiet">
            Open {opens?.title}, {shows} show. Panels are stiff: cos γ · cos η = cos 45°. Fully open the
            points are {mm(opens?.full_mm ?? 0)} apart; at {mm(opens?.alike_mm ?? 0)} points and sides are
            spread alike.
          </figcaption>
        </figure>
        <Odds teller={teller} onFair={of && onWrite && teller.changes.length > 0 ? fair : undefined} />
      </div>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <FingersCard teller={teller} />
        {of && <WrittenPlay of={of} teller={teller} />}
      </div>
      <PathTable
        summary={`How ${prediction.tries} that are folded so open`}
        columns={["number", "moves", "message", "shows", "chance, %"]}
        rows={teller.halves.map((h) => [
          h.number || "–",
          number(h.moves, 0),
          h.message || "–",
          teller.opens[h.opens]?.title ?? "",
          number(100 * h.chance, 1),
        ])}
      >
        {shares(prediction)}. {prediction.mode_words}
      </PathTable>
    </div>
  );
}
