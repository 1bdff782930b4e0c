import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Moving, Sifted } from "../api/client";
import { question } from "../api/queries";
import { Field, Select } from "../parts/controls";
import { useUnits } from "../settings";
import { parseLength } from "../units";
import type { useWish } from "./useWish";

const tools = ["scissors", "glue", "tape", "skewer"];
const minutes = [5, 10, 15, 20];
const layers = [2, 4, 8];
const audiences = ["adult", "learner", "young child", "class"];

const any = { value: "", label: "any" };

/** What lies on the table and who folds; each filter says what it leaves out. */
export function Filters({
  wish: { get, set, asked },
  sifted,
  problem,
  ways,
}: {
  wish: ReturnType<typeof useWish>;
  sifted: Sifted | undefined;
  problem: string | undefined;
  ways: Moving[];
}) {
  const units = useUnits();
  const papers = useQuery(question.papers()).data ?? [];
  const have = get("have").split(",").filter(Boolean);
  const [open, setOpen] = useState(asked || window.matchMedia("(min-width: 64rem)").matches);
  const toggle = (tool: string) => {
    const next = have.includes(tool) ? have.filter((t) => t !== tool) : [...have, tool];
    set({ only: "yes", have: next.join(",") });
  };
  const counted = (list: number[], what: string) => [
    any,
    ...list.map((n) => ({ value: String(n), label: `up to ${n} ${what}` })),
  ];
  return (
    <details
      open={open}
      onToggle={(e) => setOpen(e.currentTarget.open)}
      className="border border-line bg-panel p-3"
    >
      <summary className="font-semibold">What lies on the table, and who folds</summary>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3 xl:grid-cols-4">
        <Select
          label="Paper at hand"
          value={get("paper")}
          options={[
            any,
            ...papers.map((p) => ({ value: String(p.id), label: p.name })),
            { value: "typed", label: "another size …" },
          ]}
          onChange={(paper) => set({ paper })}
        />
        <Select
          label="Time there is"
          value={get("minutes")}
          options={counted(minutes, "minutes")}
          onChange={(v) => set({ minutes: v })}
        />
        <Select
          label="Layers in one fold"
          value={get("layers")}
          options={counted(layers, "layers")}
          onChange={(v) => set({ layers: v })}
        />
        <Select
          label="Who folds"
          value={get("for")}
          options={[any, ...audiences.map((a) => ({ value: a, label: a }))]}
          onChange={(v) => set({ for: v })}
        />
        <Select
          label="How it moves"
          value={get("moves")}
          options={[any, ...ways.map((w) => ({ value: w.moves, label: w.words.title.toLowerCase() }))]}
          onChange={(v) => set({ moves: v })}
        />
        <Select
          label="Made for"
          value={get("purpose")}
          options={[any, { value: "play", label: "play" }, { value: "show", label: "show" }]}
          onChange={(v) => set({ purpose: v })}
        />
        <fieldset className="col-span-2">
          <legend className="text-sm font-semibold">Besides paper there is</legend>
          <div className="flex flex-wrap gap-1.5">
            <button
              type="button"
              className="min-h-11 border-2 border-ink bg-panel px-2 aria-pressed:bg-ink aria-pressed:text-panel"
              aria-pressed={get("only") === ""}
              onClick={() => set({ only: "", have: "" })}
            >
              anything
            </button>
            <button
              type="button"
              className="min-h-11 border-2 border-ink bg-panel px-2 aria-pressed:bg-ink aria-pressed:text-panel"
              aria-pressed={get("only") !== "" && have.length === 0}
              onClick={() => set({ only: "yes", have: "" })}
            >
              nothing
            </button>
            {tools.map((t) => (
              <button
                key={t}
                type="button"
                className="min-h-11 border border-ink bg-panel px-2 aria-pressed:bg-ink aria-pressed:text-panel"
                aria-pressed={have.includes(t)}
                onClick={() => toggle(t)}
              >
                {t}
              </button>
            ))}
          </div>
        </fieldset>
        {get("paper") === "typed" && (
          <div className="col-span-2 grid grid-cols-2 gap-3">
            {[
              ["w", "Width"],
              ["h", "Height"],
            ].map(([k = "", label = ""]) => (
              <Field
                key={k}
                label={label}
                unit={units}
                value={get(k)}
                problem={
                  get(k) !== "" && parseLength(get(k), units) === undefined
                    ? `“${get(k)}” is no length; write for example ${units === "mm" ? "210, or 21cm" : "8 1/2, or 210 mm"}`
                    : undefined
                }
                onChange={(e) => set({ [k]: e.target.value })}
              />
            ))}
          </div>
        )}
      </div>
      {problem && <p className="mt-2 bg-caution px-2 py-1 text-on-mark">{problem}</p>}
      {asked && sifted && (
        <div className="mt-3" aria-live="polite">
          <p className="font-semibold">
            {sifted.kept.length} {sifted.kept.length === 1 ? "pattern does" : "patterns do"}.{" "}
            <button
              type="button"
              className="min-h-9 font-normal underline underline-offset-4"
              onClick={() =>
                set({
                  paper: "",
                  w: "",
                  h: "",
                  only: "",
                  have: "",
                  minutes: "",
                  layers: "",
                  for: "",
                  moves: "",
                  purpose: "",
                })
              }
            >
              Show all again
            </button>
          </p>
          <ul className="text-sm">
            {sifted.out.map((o) => (
              <li key={o.filter} data-left-out={o.filter}>
                <b>{o.says}</b>: {o.titles.length > 0 ? o.titles.join(", ") : "leaves none out"}.
              </li>
            ))}
          </ul>
        </div>
      )}
    </details>
  );
}
