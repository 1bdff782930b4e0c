import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Placement as Place } from "../../api/client";
import { question } from "../../api/queries";
import { Button } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { useUnits } from "../../settings";
import { length, number, smallLength } from "../../units";
import type { Ready } from "../frame/useBench";

/** The measured places of a step: by number, by fraction, or by folding. */
export function Placements({ ready, step }: { ready: Ready; step: number }) {
  const { pattern, setup } = ready;
  const lengths = pattern.knobs.filter((k) => k.unit === "mm" && k.steps.includes(step));
  const chosen = lengths.some((k) => setup.recipes?.[k.name]);
  const [asked, ask] = useState(false);
  const places = useQuery({
    ...question.placements(pattern.id, step, setup),
    enabled: lengths.length > 0 && (asked || chosen),
  });
  if (lengths.length === 0) return null;
  if (!asked && !chosen) {
    return <Button onClick={() => ask(true)}>Find it by folding, without a ruler</Button>;
  }
  if (!places.data) return null;
  if (places.data.length === 0) {
    return (
      <p className="text-sm">This length does not lie on an edge of the sheet, so it has to be measured.</p>
    );
  }
  return places.data.map((p) => <Where key={p.knob} ready={ready} place={p} />);
}

/** How near a knob must be to a recipe's value to be the recipe's, mm. */
const sameMM = 0.05;

function Where({ ready, place: p }: { ready: Ready; place: Place }) {
  const units = useUnits();
  const { bench, good, setup } = ready;
  const now = setup.knobs[p.knob] ?? 0;
  const creases = setup.recipes?.[p.knob];
  const used = p.recipes.find((r) => r.creases === creases && Math.abs(r.value_mm - now) < sameMM);
  const choose = (recipe: Place["recipes"][number] | undefined) => {
    const others = Object.fromEntries(Object.entries(setup.recipes ?? {}).filter(([k]) => k !== p.knob));
    const next = {
      ...setup,
      knobs: recipe ? { ...setup.knobs, [p.knob]: recipe.value_mm } : setup.knobs,
      recipes: recipe ? { ...others, [p.knob]: recipe.creases } : others,
    };
    void bench.keep(next);
  };
  return (
    <section aria-label={`${p.label}, where it lies`} className="border-2 border-ink p-3">
      <p>
        {p.label}: on {p.edge}, <b>{length(p.mm, units)}</b> from {p.from}, which is{" "}
        <b>{number(p.fraction, 4)}</b> of it.
      </p>
      {used ? (
        <>
          <p className="title mt-2 text-lg">Pinch it first, without a ruler</p>
          <ol className="mt-1 space-y-3">
            {used.steps.map((s, i) => (
              <li key={i}>
                <PaperPicture
                  picture={p.sheet}
                  next={s.over}
                  colours={{ front: good.sheet.front, back: good.sheet.back }}
                  label={s.words}
                  className="h-36 w-full"
                />
                <b>{i + 1}</b> {s.words}
              </li>
            ))}
          </ol>
          <p className="mt-1 text-sm text-quiet">
            The sign is the mark. Where the pattern wants the same on the other side, mirror it.
          </p>
          <Button className="mt-2" onClick={() => choose(undefined)}>
            Measure it after all
          </Button>
        </>
      ) : (
        <ul className="mt-2 space-y-2">
          {p.recipes.map((r) => (
            <li key={r.creases}>
              <Button className="w-full text-left" onClick={() => choose(r)}>
                {r.creases} {r.creases === 1 ? "crease" : "creases"}:{" "}
                {r.exact ? "exact" : `${length(r.value_mm, units)}, ${smallLength(r.error_mm, units, 2)} off`}
              </Button>
            </li>
          ))}
          {p.recipes.length === 0 && <li>No short chain of folds comes near it.</li>}
        </ul>
      )}
    </section>
  );
}
