import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { WrittenToy } from "../../api/client";
import { question } from "../../api/queries";
import type { Ready } from "../frame/useBench";
import { Caution, Check, Choice, Field } from "../../parts/controls";
import { useUnits } from "../../settings";
import { packWords } from "./packWords";

type Content = "filled" | "half" | "blank";

/** The most toys of a set, and the most packs. */
const [mostToys, mostPacks] = [40, 8];

const look = "flex min-h-11 items-center border-2 border-ink bg-panel px-4 font-semibold hover:bg-ground";

/** Prints of a toy that is written on: both faces at true size, and a set for a class. */
export function PrintWritten({ ready, toy }: { ready: Ready; toy: WrittenToy }) {
  const units = useUnits();
  const [content, setContent] = useState<Content>("filled");
  const [young, setYoung] = useState(false);
  const id = ready.build.id;
  const hides = toy.zones.some((z) => z.takes === "messages");
  const link = (more: Record<string, string>) =>
    `/api/v1/builds/${id}/print?${new URLSearchParams({ face: "both", write: content, units, ...(young ? { band_mm: "2" } : {}), ...more })}`;
  const practice = ready.good.steps.find((s) => s.from !== "" && s.layers_folded > 0) ?? ready.good.steps[0];
  return (
    <section aria-label="Print it" className="flex flex-col gap-3 border-t border-line pt-3">
      <h2 className="text-xl">Print it at true size, both faces</h2>
      {hides && (
        <Choice<Content>
          label="Print"
          value={content}
          options={[
            { value: "filled", label: "all of it" },
            { value: "half", label: "all but the messages" },
            { value: "blank", label: "nothing: to be written by hand" },
          ]}
          onChange={setContent}
        />
      )}
      <Check checked={young} onChange={setYoung}>
        with bands for young folders: a fold is good within 2 mm of its line
      </Check>
      <div className="flex flex-wrap gap-2">
        <a className={look} href={link({ format: "pdf" })} target="_blank" rel="noreferrer">
          PDF, front and back
        </a>
        <a className={look} href={link({ format: "svg", face: "back" })} download>
          SVG, back
        </a>
        <a className={look} href={link({ format: "svg", face: "front" })} download>
          SVG, front
        </a>
        {practice && (
          <a
            className={look}
            href={link({ format: "pdf", write: "blank", step: String(practice.no), face: "front" })}
            target="_blank"
            rel="noreferrer"
          >
            Practice sheet: step {practice.no} alone
          </a>
        )}
      </div>
      <p className="text-sm text-quiet">
        Turn the page over its long edge; crosses in the corners lie on one another. Fold lines stop short of
        the edge. The face that lies down at the start says so, and the check line is 100 mm or 4 in.
      </p>
      {hides && <ClassSet id={id} content={content} young={young} />}
    </section>
  );
}

/** A toy for everybody, each with messages of its own. */
function ClassSet({ id, content, young }: { id: number; content: Content; young: boolean }) {
  const units = useUnits();
  const { data, error } = useQuery(question.packs());
  const [packs, setPacks] = useState<string[]>([]);
  const [text, setText] = useState("8");
  const n = Number(text);
  const count = Number.isInteger(n) && n >= 1 && n <= mostToys ? n : undefined;
  const language = document.documentElement.lang.slice(0, 2);
  const order = [...(data?.packs ?? [])].sort(
    (a, b) => Number(b.language === language) - Number(a.language === language),
  );
  const query = new URLSearchParams({
    packs: packs.join(","),
    count: String(count),
    write: content,
    units,
    ...(young ? { band_mm: "2" } : {}),
  });
  if (error) return <Caution title="The packs cannot be shown">{error.message}</Caution>;
  return (
    <section
      aria-label="A set for a class"
      className="flex flex-col gap-2 border-t border-line pt-3"
      data-class=""
    >
      <h2 className="text-xl">A set for a class</h2>
      <p className="text-sm text-quiet">
        One toy for everybody, a page each, with words and messages drawn from the packs in turn; a list for
        the leader, with answers, comes last.
      </p>
      <Field
        label="Toys"
        unit=""
        inputMode="numeric"
        className="max-w-32"
        value={text}
        problem={count === undefined ? `“${text}” is not from 1 to ${mostToys}.` : undefined}
        onChange={(e) => setText(e.target.value)}
      />
      <fieldset>
        <legend className="text-sm font-semibold">Packs, up to {mostPacks}</legend>
        <div className="grid gap-x-4 sm:grid-cols-2">
          {order.map((p) => (
            <Check
              key={p.id}
              checked={packs.includes(p.id)}
              onChange={(on) =>
                setPacks(on ? [...packs, p.id].slice(0, mostPacks) : packs.filter((q) => q !== p.id))
              }
            >
              {packWords(p)}
              {!p.read && ", not read by a leader yet"}
            </Check>
          ))}
        </div>
      </fieldset>
      {packs.length > 0 && count !== undefined ? (
        <a
          className={`${look} self-start`}
          href={`/api/v1/builds/${id}/class-set?${query}`}
          target="_blank"
          rel="noreferrer"
          data-set=""
        >
          PDF: {count} {count === 1 ? "toy" : "toys"} from {packs.length}{" "}
          {packs.length === 1 ? "pack" : "packs"}
        </a>
      ) : (
        <p className="text-sm">
          {packs.length === 0
            ? "Choose a pack, and a set can be printed."
            : "Say how many toys, and a set can be printed."}
        </p>
      )}
    </section>
  );
}
