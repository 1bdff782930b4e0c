import { useState } from "react";
import { api, Problem, type Followed } from "../../api/client";
import { Button, Field } from "../../parts/controls";
import type { PlayProps } from "../drawing";
import type { TellerDrawing } from "./types";

/** A play that somebody wrote down, followed move by move: the slip is named. */
export function WrittenPlay({ of, teller }: { of: PlayProps["of"]; teller: TellerDrawing }) {
  const [text, setText] = useState("");
  const [told, setTold] = useState<Followed | null>(null);
  const [problem, setProblem] = useState("");
  const follow = async () => {
    setProblem("");
    setTold(null);
    try {
      setTold(await api.followed(of.pattern, of.setup, text));
    } catch (e) {
      setProblem(e instanceof Problem || e instanceof Error ? e.message : "It could not be followed.");
    }
  };
  const word = teller.words[0];
  const shown = word && teller.opens[word.opens]?.shows.map((h) => teller.halves[h - 1]?.number);
  return (
    <section aria-label="A written-down play" className="min-w-0" data-followed="">
      <h2 className="text-xl">Follow a play that was written down</h2>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void follow();
        }}
      >
        <Field
          label="Word, numbers that were counted, number that was opened"
          className="grow"
          value={text}
          maxLength={400}
          problem={problem || undefined}
          hint={`such as ${word?.word ?? ""} ${shown?.[0] ?? ""} …`}
          onChange={(e) => setText(e.target.value)}
        />
        <Button type="submit" className="mb-6">
          Follow it
        </Button>
      </form>
      {told && (
        <div role="status">
          <ol className="list-decimal pl-6">
            {told.moves.map((m, i) => (
              <li
                key={i}
                className={m.ok ? "" : "bg-caution px-1 text-on-mark"}
                data-slip={m.ok ? undefined : ""}
              >
                {m.says}
              </li>
            ))}
          </ol>
          <p className="mt-1 font-semibold">{told.says}</p>
          {told.fix && <p>{told.fix}</p>}
        </div>
      )}
    </section>
  );
}
