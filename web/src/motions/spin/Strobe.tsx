import { useEffect, useState } from "react";
import { Button, Caution, Field } from "../../parts/controls";

/** Flashes a second that a screen can show, and how many are shown when nothing is said. */
const [least, most, usual] = [1, 30, 10];

/** The screen as a stroboscope: it is off until somebody has read what it can do. */
export function Strobe() {
  const [on, setOn] = useState(false);
  const [text, setText] = useState(String(usual));
  const [lit, setLit] = useState(false);
  const v = Number(text.replace(",", "."));
  const rate = Number.isFinite(v) && v >= least && v <= most ? v : undefined;
  useEffect(() => {
    if (!on || rate === undefined) return undefined;
    // Light for a fifth of the time: short flashes show sharp blades.
    let off: ReturnType<typeof setTimeout> | undefined;
    const every = setInterval(() => {
      setLit(true);
      off = setTimeout(() => setLit(false), 200 / rate);
    }, 1000 / rate);
    return () => {
      clearInterval(every);
      clearTimeout(off);
      setLit(false);
    };
  }, [on, rate]);
  useEffect(() => {
    if (!on) return undefined;
    const stop = (e: KeyboardEvent) => e.key === "Escape" && setOn(false);
    window.addEventListener("keydown", stop);
    return () => window.removeEventListener("keydown", stop);
  }, [on]);
  return (
    <section aria-label="Stroboscope" className="max-w-prose space-y-2" data-strobe="">
      <h2 className="text-xl">The screen as a stroboscope</h2>
      <p>
        Darken the room and let the wheel turn in front of the screen. Find the fastest flashes at which all
        blades stand still, and log them: they are turns a second times the number of blades.
      </p>
      <Caution title="Flashing light">
        Flashes can bring on a fit in people who are sensitive to them, also in people who do not know it. Ask
        everybody who can see this screen. Stop at once when anybody feels unwell.
      </Caution>
      <Field
        label="Flashes a second"
        unit=""
        inputMode="decimal"
        value={text}
        problem={
          rate === undefined
            ? `“${text}” is not from ${least} to ${most}; a screen shows no more.`
            : undefined
        }
        onChange={(e) => setText(e.target.value)}
      />
      <Button disabled={rate === undefined} onClick={() => setOn(true)}>
        Nobody here minds flashes: start
      </Button>
      <p className="text-sm text-quiet">
        Or print the{" "}
        <a className="underline underline-offset-4" href="/api/v1/moves/wheel/card">
          strobe disc
        </a>
        : a lamp on the mains does the flashing.
      </p>
      {on && (
        <div
          className="fixed inset-0 z-40 flex flex-col items-center justify-end bg-black p-6"
          role="dialog"
          aria-label="Flashing"
          data-flashing=""
        >
          <div className={`absolute inset-0 ${lit ? "bg-white" : "bg-black"}`} aria-hidden="true" />
          <Button weight="main" className="relative" autoFocus onClick={() => setOn(false)}>
            Stop
          </Button>
        </div>
      )}
    </section>
  );
}
