import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, Problem, type SheetInput } from "../api/client";
import { Caution, Field } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { ordinary, plainFaces } from "../paper";
import { SheetForm } from "../parts/SheetForm";
import { useUnits } from "../settings";
import { inUnits, length, number } from "../units";

/** Choosing the sheet for a new build. */
export function Start() {
  const { pattern = "" } = useParams();
  const units = useUnits();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const patterns = useQuery({ queryKey: ["patterns"], queryFn: api.patterns, staleTime: Infinity });
  const p = patterns.data?.find((x) => x.id === pattern);
  const create = useMutation({
    mutationFn: (sheet: SheetInput) => api.createBuild(pattern, sheet, name),
    onSuccess: (b) => navigate(`/bench/${b.id}/fold/1`),
  });
  // When the pattern cannot be folded on the sheet, the replay tells what would do.
  const why = useQuery({
    queryKey: ["replay-input", pattern, create.variables],
    queryFn: ({ signal }) =>
      api.replayInput(
        pattern,
        create.variables ?? { width: 0, height: 0, unit: "mm", gsm: 0, thickness_mm: 0 },
        signal,
      ),
    enabled: create.error instanceof Problem && create.error.field("sheet") !== undefined,
    retry: false,
  });
  if (patterns.data && !p) {
    return (
      <main id="main" className="p-8">
        <h1 className="text-3xl">There is no pattern called “{pattern}”.</h1>
        <Link to="/" className="underline">
          Go to the shelf
        </Link>
      </main>
    );
  }
  if (!p) return <main id="main" />;
  const advice = why.data?.advice[0];
  return (
    <main
      id="main"
      className="mx-auto grid w-full max-w-[80rem] grow gap-6 p-4 sm:p-6 lg:grid-cols-[1fr_26rem]"
    >
      <section>
        <h1 className="text-4xl">{p.title}</h1>
        <p className="mt-1 text-lg">
          {p.good}. {p.steps} steps, about {p.minutes} minutes, {p.thickest} layers at the thickest.
        </p>
        {p.picture && (
          <PaperPicture
            picture={p.picture}
            colours={plainFaces}
            label={`${p.title}, finished`}
            className="mt-4 h-[12rem] w-full lg:h-[30rem]"
          />
        )}
        <p className="mt-2 text-quiet">
          Made for {p.size || "a sheet"} of {length(p.width_mm, units)} by {length(p.height_mm, units)}
          {p.max_ratio > 0 &&
            `; works on sheets ${number(p.min_ratio, 2)} to ${number(p.max_ratio, 2)} times as high as wide`}
          .
        </p>
      </section>
      <section className="border border-line bg-panel p-5" aria-labelledby="sheet">
        <h2 id="sheet" className="mb-3 text-2xl">
          Which sheet do you have?
        </h2>
        {create.error && (
          <div className="mb-4">
            <Caution title="This sheet will not do">
              <p>{inUnits(create.error.message, units)}</p>
              {advice && !advice.knob && !advice.all && (
                <p className="mt-1 font-semibold">
                  At this width it works from {length(advice.min, units)} to {length(advice.max, units)} high.
                </p>
              )}
            </Caution>
          </div>
        )}
        <SheetForm
          first={{ ...ordinary, width_mm: p.width_mm, height_mm: p.height_mm }}
          action="Begin folding"
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
    </main>
  );
}
