import { useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../../api/client";
import { changed } from "../../api/queries";
import { Button, Caution, Field } from "../../parts/controls";
import { useUnits } from "../../settings";
import { noteUndo, offerUndo } from "../../undo";
import { number, sizeWords } from "../../units";
import type { Ready } from "./useBench";

/** Name, sheet and family of the build, and what can be done with it as a whole. */
export function MatHead({ ready, className = "" }: { ready: Ready; className?: string }) {
  const { build, bench, good, pattern } = ready;
  const units = useUnits();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  const rename = async () => {
    const was = build.name;
    if (name === null || !(await bench.change(api.rename(build.id, name)))) return;
    setName(null);
    offerUndo(`It is called ${name} now`, { do: "rename build", id: build.id, name: was });
  };
  const duplicate = async () => {
    const b = await bench.change(api.duplicate(build.id));
    if (!b) return;
    noteUndo(`${b.name} is on the bench`, { do: "bin build", id: b.id });
    void navigate(`/bench/${b.id}/set`);
  };
  const bin = async () => {
    await api.binBuild(build.id);
    await changed.builds(queries);
    void navigate("/");
    offerUndo(`${build.name} is in the bin`, { do: "restore build", id: build.id });
  };
  const row =
    "block w-full cursor-pointer px-4 py-2 text-left outline-none data-highlighted:bg-ink data-highlighted:text-panel";
  return (
    <div className={`mb-3 ${className}`}>
      {bench.crossed && (
        <Caution title="Moved on another device as well">
          <p className="mt-1">{bench.crossed.problem.message}.</p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button onClick={bench.crossed.theirs}>Take what is there</Button>
            <Button onClick={() => void bench.crossed?.mine()}>Keep what I moved</Button>
          </div>
        </Caution>
      )}
      <div className="flex items-start justify-between gap-3">
        {name === null ? (
          <h1 className="text-[1.7rem] lg:text-3xl">{build.name}</h1>
        ) : (
          <form
            className="flex grow items-end gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              void rename();
            }}
          >
            <Field
              label="Name of the build"
              className="grow"
              value={name}
              maxLength={80}
              autoFocus
              onChange={(e) => setName(e.target.value)}
              onKeyDown={(e) => e.key === "Escape" && setName(null)}
            />
            <Button type="submit" weight="main">
              Rename
            </Button>
          </form>
        )}
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="min-h-11 shrink-0 border border-ink bg-panel px-3">
            Build ▾
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="end" className="z-20 min-w-52 border-2 border-ink bg-panel">
              <DropdownMenu.Item className={row} onSelect={() => setName(build.name)}>
                Rename
              </DropdownMenu.Item>
              <DropdownMenu.Item className={row} onSelect={() => void duplicate()}>
                Duplicate without {ready.way.words.many}
              </DropdownMenu.Item>
              <DropdownMenu.Item className={row} asChild>
                <a href={`/api/v1/builds/${build.id}/bundle`} download>
                  Save to a file
                </a>
              </DropdownMenu.Item>
              {build.trials > 0 && (
                <DropdownMenu.Item className={row} asChild>
                  <a href={`/api/v1/builds/${build.id}/trials.csv`} download>
                    Save the {ready.way.words.many} as a table (CSV)
                  </a>
                </DropdownMenu.Item>
              )}
              {build.unprinted && (
                <p className="max-w-64 bg-caution px-3 py-2 text-sm text-on-mark">
                  A PDF lacks the letters {build.unprinted} of the name. The prints below are SVG, which your
                  browser draws with them.
                </p>
              )}
              {(
                [
                  ["usual", "Print the steps"],
                  ["large", "Print the steps in large type"],
                  ["summary", "Print a summary"],
                ] as const
              ).map(([style, words]) => (
                <DropdownMenu.Item key={style} className={row} asChild>
                  <a
                    href={`/api/v1/builds/${build.id}/step-sheets?format=${build.unprinted ? "svg" : "pdf"}&style=${style}&units=${units}`}
                    target="_blank"
                    rel="noreferrer"
                  >
                    {words}
                  </a>
                </DropdownMenu.Item>
              ))}
              <DropdownMenu.Item className={row} onSelect={() => void bin()}>
                Put into the bin
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <p className="text-quiet">
        {pattern.title} on {good.sheet.paper && `${good.sheet.paper}, `}
        {sizeWords(good.sheet, good.size, units)}, {number(good.sheet.gsm)} g/m²
        {build.parent && (
          <>
            . Child of{" "}
            <Link className="underline" to={`/bench/${build.parent.id}`}>
              {build.parent.name || "a build in the bin"}
            </Link>
            , tweak {build.parent.tweak}
          </>
        )}
        {build.children.map((c) => (
          <span key={c.id}>
            . Child build:{" "}
            <Link className="underline" to={`/bench/${c.id}`}>
              {c.name}
            </Link>
          </span>
        ))}
      </p>
    </div>
  );
}
