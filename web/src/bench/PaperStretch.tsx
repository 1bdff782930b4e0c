import { useNavigate } from "react-router";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type SheetInput } from "../api/client";
import { PaperPicture } from "../parts/PaperPicture";
import { SheetForm } from "../parts/SheetForm";
import { Caution, Figure } from "../parts/controls";
import { useUnits } from "../settings";
import { inUnits, length, lengthValue, number, thickness } from "../units";
import { MatHead } from "./MatHead";
import { Mat, MovedDraft, Slip } from "./Slip";
import type { Ready } from "./useBench";

/** Which sheet the toy is folded from. */
export function PaperStretch({ ready }: { ready: Ready }) {
  const { bench, build, good, setup, pattern } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<Error | null>(null);
  const [asked, setAsked] = useState<SheetInput | null>(null);
  const sheet = good.sheet;
  // Why a sheet was refused, and which would do.
  const why = useQuery({
    queryKey: ["replay-input", pattern.id, asked],
    queryFn: ({ signal }) =>
      api.replayInput(
        pattern.id,
        asked ?? { width: 0, height: 0, unit: "mm", gsm: 0, thickness_mm: 0 },
        signal,
      ),
    enabled: problem !== null && asked !== null,
    retry: false,
  });
  const choose = async (input: SheetInput) => {
    setProblem(null);
    setAsked(input);
    try {
      // The server converts and checks; the answer carries the sheet in mm.
      const view = await api.replayInput(pattern.id, input);
      const next = { ...setup, sheet: view.sheet };
      bench.show(await api.setDraft(build.id, next));
      bench.tryOut(next);
      void bench.keep(next);
      void navigate(`/bench/${build.id}/paper`);
    } catch (e) {
      setProblem(e as Error);
    }
  };
  const advice = why.data?.advice.find((a) => !a.knob && !a.all);
  return (
    <>
      <Mat>
        <MatHead ready={ready} />
        <PaperPicture
          picture={good.start}
          colours={{ front: sheet.front, back: sheet.back }}
          label={`The sheet, ${length(sheet.width_mm, units)} wide and ${length(sheet.height_mm, units)} high`}
          className="h-[20rem] w-full lg:h-auto lg:min-h-0 lg:grow lg:basis-0"
        />
        <p className="mt-2 text-center text-lg">
          {lengthValue(sheet.width_mm, units)} × {lengthValue(sheet.height_mm, units)} {units}, front side up
        </p>
      </Mat>
      <Slip label="Slip">
        <h2 className="text-2xl">The sheet</h2>
        <Figure value={number(good.toy?.mass_g ?? 0, 2)} unit="g">
          {number(sheet.gsm)} g/m² on {length(sheet.width_mm, units)} × {length(sheet.height_mm, units)},{" "}
          {thickness(sheet.thickness_mm, units)} thick. The toy weighs the same: folding loses no paper.
        </Figure>
        {problem && (
          <Caution title="This sheet will not do">
            <p>{inUnits(problem.message, units)}</p>
            {advice && (
              <p className="mt-1 font-semibold">
                At this width it works from {length(advice.min, units)} to {length(advice.max, units)} high.
              </p>
            )}
            <p className="mt-1 text-sm">The mat still shows the sheet that works.</p>
          </Caution>
        )}
        <MovedDraft ready={ready} />
        <SheetForm
          key={build.id}
          first={setup.sheet}
          action="Take this sheet"
          problem={problem}
          onChoose={(s) => void choose(s)}
        />
      </Slip>
    </>
  );
}
