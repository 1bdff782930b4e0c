import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type Bundle, type Settings } from "../api/client";
import { changed, know, question } from "../api/queries";
import { Button, Caution, Choice, Field } from "../parts/controls";
import { useMoves } from "../parts/useMoves";
import { SharingBox } from "../parts/SharingBox";
import { useGuest, useSettings } from "../settings";
import { noteUndo } from "../undo";
import { Main } from "../parts/Main";
import { length, lengthValue, parseLength } from "../units";

/** Units, hand, theme; everything in one file and back. */
export function SettingsPlace() {
  const { settings: s, change } = useSettings();
  const guest = useGuest();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState("");
  const [said, setSaid] = useState("");
  const [waiting, setWaiting] = useState<File | null>(null);
  const attempt = async (work: () => Promise<string>) => {
    setProblem("");
    setSaid("");
    try {
      setSaid(await work());
    } catch (e) {
      setProblem(
        e instanceof SyntaxError
          ? "This file is not a Tussock build: it is no JSON."
          : e instanceof Error
            ? e.message
            : "That did not work.",
      );
    }
  };
  const readBuild = (file: File) =>
    attempt(async () => {
      // The server checks every value; nothing of the file is trusted here.
      const b = await api.addBundle(JSON.parse(await file.text()) as Bundle);
      await changed.everything(queries);
      noteUndo(`${b.name} is read`, { do: "bin build", id: b.id });
      void navigate(`/bench/${b.id}`);
      return `${b.name} is on the bench.`;
    });
  const restoreCopy = (day: string) =>
    attempt(async () => {
      const { kept } = await api.restoreCopy(day);
      await changed.everything(queries);
      return `Everything is as on ${dayWords(day)}. What was there before is kept in ${kept}.`;
    });
  const restore = (file: File) =>
    attempt(async () => {
      const { kept } = await api.restoreBackup(file);
      await changed.everything(queries);
      setWaiting(null);
      return `Everything is as in the backup. What was there before is kept in ${kept}.`;
    });
  const box = "border border-line bg-panel p-5";
  return (
    <Main title="Settings" className="mx-auto w-full max-w-[60rem] grow p-4 sm:p-6">
      <h1 className="text-3xl">Settings</h1>
      {problem && (
        <div className="mt-4">
          <Caution title="That did not work">{problem}</Caution>
        </div>
      )}
      <p role="status" className="mt-2 font-semibold text-tide">
        {said}
      </p>
      <div className="mt-3 grid gap-4 md:grid-cols-2">
        <div className="space-y-4">
          <section className={`${box} space-y-4`}>
            <h2 className="text-2xl">You</h2>
            <Choice
              label="Units"
              value={s.units}
              options={[
                { value: "mm", label: "mm" },
                { value: "in", label: "inch, to 1/16" },
              ]}
              onChange={(units) => change({ units })}
            />
            <Choice
              label="Folding hand"
              value={s.hand}
              options={[
                { value: "right", label: "Right" },
                { value: "left", label: "Left" },
              ]}
              onChange={(hand) => change({ hand })}
            />
            <p className="text-sm text-quiet">For a left hand the slip lies on the left of the mat.</p>
            <Finger settings={s} change={change} />
            <Choice
              label="Theme"
              value={s.theme}
              options={[
                { value: "auto", label: "As this machine" },
                { value: "light", label: "Day" },
                { value: "dark", label: "Night" },
              ]}
              onChange={(theme) => change({ theme })}
            />
            <Choice<"auto" | "a4" | "letter">
              label="Paper in the printer"
              value={s.page ?? "auto"}
              options={[
                { value: "auto", label: "Goes with the sheet" },
                { value: "a4", label: "A4" },
                { value: "letter", label: "Letter" },
              ]}
              onChange={(page) => change({ page })}
            />
          </section>
          {guest ? (
            <section className={`${box} space-y-4`}>
              <h2 className="text-2xl">This device</h2>
              <ThisDevice />
            </section>
          ) : (
            <section className={`${box} space-y-4`}>
              <h2 className="text-2xl">Other devices</h2>
              <SharingBox />
            </section>
          )}
        </div>
        <section className={`${box} space-y-4 self-start`}>
          <h2 className="text-2xl">Files</h2>
          <div>
            <h3 className="text-lg">One build</h3>
            <p className="text-sm text-quiet">
              Save a build from its own menu on the bench. Reading it back makes a new build and changes no
              other.
            </p>
            <FilePick
              label="Read a build from a file"
              accept=".json,application/json"
              onPick={(f) => void readBuild(f)}
            />
          </div>
          {!guest && (
            <div>
              <h3 className="text-lg">Everything</h3>
              <p className="mb-2 text-sm text-quiet">
                All builds, tweaks, throws, papers and settings in one file.
              </p>
              <a
                href="/api/v1/backup"
                download
                className="inline-flex min-h-11 items-center border-2 border-ink bg-panel px-4 font-semibold hover:bg-ground"
              >
                Save everything to a file
              </a>
              <FilePick label="Read everything back" accept=".tussock" onPick={setWaiting} />
              {waiting && (
                <div className="mt-3 border-2 border-ink p-3">
                  <p>
                    Replace everything here by <b>{waiting.name}</b>? What is here now is kept in a file
                    beside the data.
                  </p>
                  <div className="mt-2 flex gap-2">
                    <Button weight="main" onClick={() => void restore(waiting)}>
                      Replace everything
                    </Button>
                    <Button onClick={() => setWaiting(null)}>Leave it</Button>
                  </div>
                </div>
              )}
              <Copies onRestore={(day) => void restoreCopy(day)} />
            </div>
          )}
        </section>
      </div>
    </Main>
  );
}

const dayWords = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString([], {
    weekday: "long",
    day: "numeric",
    month: "long",
    year: "numeric",
  });

/** The daily copies, and what could not be read when Tussock was started. */
function Copies({ onRestore }: { onRestore: (day: string) => void }) {
  const copies = useQuery(question.copies()).data;
  const [asked, setAsked] = useState<string | null>(null);
  if (!copies) return null;
  return (
    <div className="mt-4">
      <h3 className="text-lg">Daily copies</h3>
      <p className="text-sm text-quiet">
        Everything as it was when Tussock was first used on a day, the last seven days of use. They lie in{" "}
        {copies.folder}, beside the data.
      </p>
      {copies.copies.length === 0 && <p className="mt-1">The first one is being written.</p>}
      <ul className="mt-1">
        {copies.copies.map((c) => (
          <li key={c.day} className="flex flex-wrap items-center gap-x-3 border-t border-line py-1.5">
            <span className="grow">
              {dayWords(c.day)} <span className="text-sm text-quiet">{Math.ceil(c.bytes / 1024)} kB</span>
            </span>
            {asked === c.day ? (
              <>
                <Button
                  weight="main"
                  onClick={() => {
                    setAsked(null);
                    onRestore(c.day);
                  }}
                >
                  Replace everything
                </Button>
                <Button onClick={() => setAsked(null)}>Leave it</Button>
              </>
            ) : (
              <Button aria-label={`Put back what was on ${dayWords(c.day)}`} onClick={() => setAsked(c.day)}>
                Put back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {copies.asides.length > 0 && (
        <Caution title="Some rows could not be read and were set aside">
          <ul className="mt-1 list-inside list-disc">
            {copies.asides.map((a) => (
              <li key={a.what + a.at}>
                {a.what}, on {new Date(a.at).toLocaleDateString()}: {a.why}
              </li>
            ))}
          </ul>
          <p className="mt-1">All else is there. A daily copy from before may have them whole.</p>
        </Caution>
      )}
    </div>
  );
}

/** How this device of the hall is called. */
function ThisDevice() {
  const queries = useQueryClient();
  const me = useQuery(question.me()).data;
  const [name, setName] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const call = async () => {
    try {
      know.me(queries, await api.callMe(name ?? ""));
      setName(null);
      setProblem("");
    } catch (e) {
      setProblem(e instanceof Error ? e.message : "That did not work.");
    }
  };
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void call();
      }}
    >
      <Field
        label="Called"
        className="grow"
        value={name ?? me?.name ?? ""}
        maxLength={80}
        problem={problem || undefined}
        hint="The machine where Tussock runs lists it by this name. Units, hand and theme above hold for this device alone."
        onChange={(e) => setName(e.target.value)}
      />
      {name !== null && (
        <Button type="submit" weight="main">
          Keep
        </Button>
      )}
    </form>
  );
}

function FilePick({ label, accept, onPick }: { label: string; accept: string; onPick: (f: File) => void }) {
  return (
    <label className="mt-2 block">
      <span className="block text-sm font-semibold">{label}</span>
      <input
        type="file"
        accept={accept}
        className="w-full border border-line p-2"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onPick(file);
        }}
      />
    </label>
  );
}

/** The girth of the finger that toys go on, typed; empty where none was measured. */
function Finger({ settings, change }: { settings: Settings; change: (part: Partial<Settings>) => void }) {
  const units = settings.units;
  const gauge = useMoves()?.find((w) => w.asked?.card_name && w.conditions.some((c) => c.setting));
  const kept = settings.finger_mm ? lengthValue(settings.finger_mm, units) : "";
  const [typed, setTyped] = useState<string | null>(null);
  const v = typed === null || typed.trim() === "" ? 0 : parseLength(typed, units);
  const wrong = v === undefined || (v !== 0 && (v < 25 || v > 85));
  return (
    <>
      <Field
        label="Girth of your finger, for toys that go on it"
        inputMode="decimal"
        unit={units}
        value={typed ?? kept}
        problem={
          wrong ? `Write a girth from ${length(25, units)} to ${length(85, units)}, or nothing.` : undefined
        }
        hint="Lay the printed ring gauge or a strip of paper round its middle."
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed === null || wrong) return;
          change({ finger_mm: v });
          setTyped(null);
        }}
      />
      {gauge && (
        <a
          className="text-sm underline underline-offset-4"
          href={`/api/v1/moves/${gauge.name}/card?units=${units}`}
        >
          Print the {gauge.asked?.card_name}
        </a>
      )}
    </>
  );
}
