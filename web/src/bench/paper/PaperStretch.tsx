import { Link, useNavigate } from "react-router";
import { useState } from "react";
import { api, Problem, sheetInput, type SheetInput, type Way } from "../../api/client";
import { useKeepLeftovers } from "../../papers/leftovers";
import { inMM, pieceOf, turnedQuarter, useFit, useOrigin } from "../../papers/sheets";
import { WayList, WaySteps } from "../../papers/SheetWays";
import { useWanted } from "../../papers/wanted";
import { Button, Caution, Figure } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { PrintLinks } from "../../parts/PrintLinks";
import { GetIt, OtherOffice, Verdict } from "../../papers/SheetAdvice";
import { SheetForm } from "../../parts/SheetForm";
import { useUnits } from "../../settings";
import { noteUndo } from "../../undo";
import { length, lengthValue, number, sheetSize, thickness } from "../../units";
import { FaceUp } from "./FaceUp";
import { MatHead } from "../frame/MatHead";
import { Mat, MovedDraft, Slip } from "../frame/Slip";
import type { Ready } from "../frame/useBench";

/** Which sheet the toy is folded from, and how to get it out of the one at hand. */
export function PaperStretch({ ready }: { ready: Ready }) {
  const { bench, build, good, setup, pattern } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<Error | null>(null);
  // A sheet that was refused stays in question until another is taken.
  const [asked, setAsked] = useState<SheetInput | null>(null);
  const [getting, setGetting] = useState(false);
  const [left, setLeft] = useState<Way | null>(null);
  const sheet = good.sheet;
  const have = asked ?? sheetInput(sheet);
  const refused = problem !== null;
  const fit = useFit(pattern.id, have, setup.knobs);
  const wanted = useWanted(
    getting ? { width: have.width, height: have.height, unit: have.unit } : undefined,
    have.gsm,
    have.thickness_mm,
    fit?.wants[0]?.want,
  );
  // A toy of a regular sheet: its outline is got out of the sheet at hand first.
  const cut = good.corners > 0 && !getting;
  const outline = useWanted(
    cut ? { width: have.width, height: have.height, unit: have.unit } : undefined,
    have.gsm,
    have.thickness_mm,
    cut ? { kind: "ngon", n: good.corners } : undefined,
  );
  const take = async (input: SheetInput) => {
    setProblem(null);
    try {
      // The server converts and checks; the answer carries the sheet in mm.
      const view = await api.replayInput(pattern.id, input);
      const next = { ...setup, sheet: view.sheet };
      bench.show(await api.moveDraft(build.id, { version: build.version, knobs: {}, sheet: next.sheet }));
      noteUndo("another sheet", { do: "move", id: build.id, moves: { knobs: {}, sheet: setup.sheet } });
      setAsked(null);
      setGetting(false);
      void navigate(`/bench/${build.id}/paper`);
    } catch (e) {
      setProblem(e as Error);
      // A size that is no sheet at all is only told; from another there may be a way.
      const sized = e instanceof Problem && e.field("sheet") !== undefined;
      setAsked(sized ? input : null);
      setGetting(sized);
    }
  };
  const keepLeftovers = useKeepLeftovers();
  const origin = useOrigin(sheet);
  const firstToFold = good.steps.find((s) => !s.made)?.no ?? 1;
  const way = getting ? wanted.way : (origin ?? (cut ? outline.way : undefined));
  const start =
    getting || !sheet.from
      ? { w: inMM(have.width, have.unit), h: inMM(have.height, have.unit) }
      : { w: sheet.from.width_mm, h: sheet.from.height_mm };
  const name = have.paper || sheetSize(start.w, start.h, "mm");
  return (
    <>
      <Mat className="lg:max-h-none">
        <MatHead ready={ready} />
        {way ? (
          <>
            <h2 className="mb-2 text-2xl">
              {way.name}: from {sheetSize(start.w, start.h, units)} to{" "}
              {cut ? `${good.corners} equal sides` : sheetSize(way.width_mm, way.height_mm, units)}
            </h2>
            <WaySteps way={way} colours={{ front: sheet.front, back: sheet.back }} />
            {!getting && sheet.made && sheet.made.length > 0 && (
              <p className="mt-2 font-semibold">The creases that this leaves are not asked for again.</p>
            )}
          </>
        ) : (
          <>
            <PaperPicture
              picture={good.start}
              colours={{ front: sheet.front, back: sheet.back }}
              label={`The sheet, ${length(sheet.width_mm, units)} wide and ${length(sheet.height_mm, units)} high`}
              className="h-[20rem] w-full lg:h-[30rem]"
            />
            <p className="mt-2 text-center text-lg">
              {lengthValue(sheet.width_mm, units)} × {lengthValue(sheet.height_mm, units)} {units},{" "}
              {sheet.turned ? "back" : "front"} side up
            </p>
          </>
        )}
      </Mat>
      <Slip label="Slip">
        <h2 className="text-2xl">The sheet</h2>
        {!refused && good.nearly && <p className="border-l-4 border-caution pl-2">{good.nearly}</p>}
        {!refused && (
          <Figure value={fit?.does ? "Fits" : "…"} unit={fit?.does ? "as it is" : ""}>
            {number(sheet.gsm)} g/m², {thickness(sheet.thickness_mm, units)} thick; the toy will weigh{" "}
            {number(good.toy?.mass_g ?? 0, 2)} g.
            {fit && fit.least_w_mm > 0 && !fit.small && (
              <>
                {" "}
                Down to about {sheetSize(fit.least_w_mm, fit.least_h_mm, units)} fingers can fold it (rule of
                thumb).
              </>
            )}
          </Figure>
        )}
        {!refused && fit?.does && (
          <Link
            to={`/bench/${build.id}/fold/${firstToFold}`}
            className="title block border-2 border-on-mark bg-buoy px-4 py-3 text-center text-xl text-on-mark"
          >
            {origin && !getting ? "The sheet is ready: fold" : "Fold it"} →
          </Link>
        )}
        {refused && !fit && <Caution title="This sheet will not do">{problem.message}</Caution>}
        {fit && (!refused || asked) && <Verdict fit={fit} />}
        {refused && <p className="text-sm">The build keeps the sheet that works until you take another.</p>}
        <MovedDraft ready={ready} />
        {fit && (
          <OtherOffice
            fit={fit}
            own={pattern.size || sheetSize(pattern.width_mm, pattern.height_mm, units)}
          />
        )}
        {fit && !refused && fit.fixed.length > 0 && (
          <section aria-labelledby="fixed">
            <h3 id="fixed" className="text-xl">
              Fixed lengths
            </h3>
            <p className="text-sm text-quiet">
              This sheet is {number(100 * fit.scale, 1)} % of the pattern's. These lengths do not grow with it
              by themselves.
            </p>
            <ul className="mt-1 list-inside list-disc">
              {fit.fixed.map((f) => (
                <li key={f.knob}>
                  {f.label}: {length(f.now_mm, units)}, scaled {length(f.scaled_mm, units)}
                </li>
              ))}
            </ul>
            <Button
              className="mt-2"
              onClick={() => {
                const next = {
                  ...setup,
                  knobs: {
                    ...setup.knobs,
                    ...Object.fromEntries(fit.fixed.map((f) => [f.knob, f.scaled_mm])),
                  },
                };
                void bench.keep(next);
              }}
            >
              Scale them with the sheet
            </Button>
          </section>
        )}
        {cut && (
          <section aria-labelledby="outline" data-outline={good.corners}>
            <h3 id="outline" className="mb-2 text-xl">
              First {good.corners} equal sides
            </h3>
            <WayList asked={outline} />
            <PrintLinks outline={{ width: start.w, height: start.h, n: good.corners }} />
          </section>
        )}
        {getting && fit ? (
          <section aria-labelledby="get-it">
            <h3 id="get-it" className="mb-2 text-xl">
              Get a sheet out of this one
            </h3>
            <GetIt
              fit={fit}
              asked={wanted}
              action="Take this piece"
              onTake={(w, want) => void take(pieceOf(have, w, want))}
              onTurn={() => void take(turnedQuarter(have))}
            />
            {!refused && (
              <Button className="mt-2" onClick={() => setGetting(false)}>
                Stay with the sheet as it is
              </Button>
            )}
          </section>
        ) : (
          <Button onClick={() => setGetting(true)}>Get another sheet out of this one</Button>
        )}
        {way && way.leftovers.length > 0 && (
          <Button
            disabled={left === way}
            onClick={() => {
              setLeft(way);
              void keepLeftovers(name, have, way.leftovers);
            }}
          >
            Put what is left over into the drawer
          </Button>
        )}
        {!refused && (
          <FaceUp replay={good} onTurn={() => void api.turnedOver(sheet).then((s) => take(sheetInput(s)))} />
        )}
        {!refused && <PrintLinks build={build.id} unprinted={build.unprinted} />}
        <h2 className="text-xl">Another paper</h2>
        <SheetForm
          key={build.id}
          first={setup.sheet}
          action="Take this sheet"
          weight="main"
          problem={problem}
          onChoose={(s) => void take(s)}
        />
      </Slip>
    </>
  );
}
