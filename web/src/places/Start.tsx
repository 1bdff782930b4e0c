import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, Problem, sheetInput, type SheetInput } from "../api/client";
import { question } from "../api/queries";
import { pieceOf, turnedQuarter, useFit } from "../papers/sheets";
import { WaySteps } from "../papers/SheetWays";
import { useWanted } from "../papers/wanted";
import { Caution, Field } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { usePlainPaper } from "../paper";
import { GetIt, Verdict } from "../papers/SheetAdvice";
import { SheetForm } from "../parts/SheetForm";
import { useUnits } from "../settings";
import { noteUndo } from "../undo";
import { layersOf, number, sheetSize } from "../units";
import { Main } from "../parts/Main";

/** Choosing the sheet for a new build. */
export function Start() {
  const plain = usePlainPaper();
  const { pattern = "" } = useParams();
  const units = useUnits();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const patterns = useQuery(question.patterns());
  const p = patterns.data?.find((x) => x.id === pattern);
  const create = useMutation({
    mutationFn: async (sheet: SheetInput) => {
      const build = await api.createBuild(pattern, sheet, name);
      const { small } = await api.fit(pattern, sheetInput(build.setup.sheet), {});
      return { build, small };
    },
    // A sheet that must be made first is made first; one that is too small says so.
    onSuccess: ({ build: b, small }) => {
      noteUndo(`${b.name} is begun`, { do: "bin build", id: b.id });
      return navigate(
        `/bench/${b.id}/${b.setup.sheet.way || small || (p?.corners ?? 0) > 0 ? "paper" : "fold/1"}`,
      );
    },
  });
  // When the pattern cannot be folded on the sheet, there may be a way to one that does.
  const refused =
    create.error instanceof Problem && create.error.field("sheet") !== undefined
      ? create.variables
      : undefined;
  const fit = useFit(pattern, refused, noKnobs);
  const lacking = refused && fit && !fit.does ? fit : undefined;
  const asked = useWanted(
    lacking && refused ? { width: refused.width, height: refused.height, unit: refused.unit } : undefined,
    refused?.gsm ?? 0,
    refused?.thickness_mm ?? 0,
    lacking?.wants[0]?.want,
  );
  if (patterns.data && !p) {
    return (
      <Main title="No such pattern" className="p-8">
        <h1 className="text-3xl">There is no pattern called “{pattern}”.</h1>
        <Link to="/" className="underline">
          Go to the shelf
        </Link>
      </Main>
    );
  }
  if (!p || !plain.gsm) return <main id="main" aria-busy="true" />;
  return (
    <Main
      title={`Begin: ${p.title}`}
      className="mx-auto grid w-full max-w-[80rem] grow gap-6 p-4 sm:p-6 lg:grid-cols-[1fr_26rem]"
    >
      <section>
        <h1 className="text-4xl">{p.title}</h1>
        <p className="mt-1 text-lg">
          {p.good}. {p.steps} steps, about {p.minutes} minutes, {layersOf(p.thickest)} at the thickest.
        </p>
        {lacking && asked.way ? (
          <div className="mt-4">
            <WaySteps way={asked.way} colours={plain} />
          </div>
        ) : (
          p.picture && (
            <PaperPicture
              picture={p.picture}
              colours={plain}
              label={`${p.title}, finished`}
              className="mt-4 h-[12rem] w-full lg:h-[30rem]"
            />
          )
        )}
        <p className="mt-2 text-quiet">
          {p.corners > 0 ? (
            `Made from a sheet with ${p.corners} equal sides, as large as yours gives: how to get it is told first`
          ) : (
            <>
              Made for {p.size ? `${p.size}, ` : "a sheet of "}
              {sheetSize(p.width_mm, p.height_mm, units)}
            </>
          )}
          {p.max_ratio > 0 &&
            (p.max_ratio - p.min_ratio < 0.01
              ? `; works on squares only`
              : `; works on sheets ${number(p.min_ratio, 2)} to ${number(p.max_ratio, 2)} times as high as wide`)}
          .
        </p>
      </section>
      <section className="border border-line bg-panel p-5" aria-labelledby="sheet">
        <h2 id="sheet" className="mb-3 text-2xl">
          Which sheet do you have?
        </h2>
        {create.error && !refused && (
          <div className="mb-4">
            <Caution title="This sheet will not do">{create.error.message}</Caution>
          </div>
        )}
        {refused && lacking && (
          <div className="mb-6 space-y-3">
            <Verdict fit={lacking} />
            <h3 className="text-xl">Get the sheet out of this one</h3>
            <GetIt
              fit={lacking}
              asked={asked}
              action="Take this piece and begin"
              onTake={(way, want) => create.mutate(pieceOf(refused, way, want))}
              onTurn={() => create.mutate(turnedQuarter(refused))}
            />
            <h3 className="pt-2 text-xl">Or take another</h3>
          </div>
        )}
        <SheetForm
          first={{ ...plain, width_mm: p.width_mm, height_mm: p.height_mm }}
          action="Begin folding"
          weight={lacking ? "main" : "now"}
          problem={create.error}
          onChoose={(sheet) => create.mutate(sheet)}
        >
          <Field
            label="Name of the build (may stay empty)"
            value={name}
            maxLength={80}
            problem={create.error instanceof Problem ? create.error.field("name") : undefined}
            onChange={(e) => setName(e.target.value)}
          />
        </SheetForm>
      </section>
    </Main>
  );
}

const noKnobs = {};
