import type { Want, Way } from "../api/client";
import { Caution, Check, Choice, Field } from "../parts/controls";
import { PaperPicture } from "../parts/PaperPicture";
import { useUnits } from "../settings";
import { number, sheetSize, smallLength } from "../units";
import { type useWanted } from "./wanted";

type Asked = ReturnType<typeof useWanted>;

const kinds: { value: Want["kind"]; label: string }[] = [
  { value: "square", label: "a square" },
  { value: "half", label: "a half" },
  { value: "strip", label: "a strip" },
  { value: "ngon", label: "equal sides" },
  { value: "ratio", label: "proportions" },
  { value: "size", label: "a size" },
  { value: "margin", label: "margin off" },
];

/** What sheet is wanted of the one at hand. */
export function WantFields({ asked }: { asked: Asked }) {
  const units = useUnits();
  const { wanted: w, set } = asked;
  return (
    <div className="space-y-3">
      <Choice
        label="What is wanted of it"
        value={w.kind}
        options={kinds}
        onChange={(kind) => set({ kind, width: "", height: "" })}
      />
      {(w.kind === "square" || w.kind === "strip" || w.kind === "size") && (
        <div className="grid grid-cols-2 gap-3">
          <Field
            label={w.kind === "square" ? "Side" : w.kind === "strip" ? "Width of the strip" : "Wanted width"}
            unit={units}
            value={w.width}
            hint={w.kind === "square" ? "Empty: the largest." : undefined}
            onChange={(e) => set({ width: e.target.value })}
          />
          {w.kind === "size" && (
            <Field
              label="Wanted height"
              unit={units}
              value={w.height}
              onChange={(e) => set({ height: e.target.value })}
            />
          )}
        </div>
      )}
      {w.kind === "ratio" && (
        <Field
          label="So many times as high as wide"
          value={w.ratio}
          hint="1.414 is 1:√2, the A sizes; 1.294 is Letter; 2 is a half square."
          onChange={(e) => set({ ratio: e.target.value })}
        />
      )}
      {w.kind === "ngon" && (
        <Field
          label="Corners"
          value={w.n}
          inputMode="numeric"
          hint="3 to 8"
          onChange={(e) => set({ n: e.target.value })}
        />
      )}
      {w.kind === "margin" && (
        <div className="grid grid-cols-2 gap-3">
          {(["left", "right", "bottom", "top"] as const).map((edge) => (
            <Field
              key={edge}
              label={{ left: "Left", right: "Right", bottom: "Lower", top: "Upper" }[edge] + " edge"}
              unit={units}
              value={w.margin[edge]}
              onChange={(e) => set({ margin: { ...w.margin, [edge]: e.target.value } })}
            />
          ))}
        </div>
      )}
      <Check checked={asked.cutFree} onChange={asked.setCutFree}>
        Without scissors
      </Check>
    </div>
  );
}

/** Minutes as people say them. */
const time = (m: number) =>
  m < 1 ? `${Math.max(10, Math.round((m * 60) / 10) * 10)} s` : `${number(m, 1)} min`;

/** The ways there are, to choose one. */
export function WayList({ asked }: { asked: Asked }) {
  const units = useUnits();
  const { ways, problem } = asked;
  if (problem) return <Caution title="That is not clear">{problem}</Caution>;
  if (!ways) return null;
  return (
    <div className="space-y-3">
      {ways.why && (
        <Caution title={ways.ways.length > 0 ? "Mind" : "This sheet cannot give that"}>
          <p>{`${ways.why}.`}</p>
          {ways.instead && (
            <button
              type="button"
              className="mt-2 min-h-11 border-2 border-on-mark bg-panel px-3 font-semibold text-ink"
              onClick={() => ways.instead && asked.take(ways.instead)}
            >
              {ways.instead.width_mm && ways.instead.height_mm
                ? `Show how to get ${sheetSize(ways.instead.width_mm, ways.instead.height_mm, units)}`
                : "Show what it can give"}
            </button>
          )}
        </Caution>
      )}
      {ways.largest_mm && (
        <p className="text-sm text-quiet">
          The largest outline with equal sides that this sheet holds has sides of{" "}
          {smallLength(ways.largest_mm, units)}
          {ways.tilt_deg ? `, turned by ${number(ways.tilt_deg, 1)}°` : ""}: that is what the printed outline
          gives.
        </p>
      )}
      <ul aria-label="Ways" className="space-y-2">
        {ways.ways.map((w, i) => (
          <li key={w.id}>
            <button
              type="button"
              aria-pressed={i === asked.chosen}
              onClick={() => asked.choose(i)}
              className="w-full border-2 border-ink bg-panel p-3 text-left hover:bg-ground aria-pressed:bg-ink aria-pressed:text-panel"
            >
              <span className="flex items-baseline justify-between gap-3">
                <b>{w.name}</b>
                <span className="title text-xl whitespace-nowrap">± {smallLength(w.error_mm, units)}</span>
              </span>
              <span className="block text-sm">
                {w.steps.length === 0
                  ? "nothing to do"
                  : `${time(w.minutes)}, ${w.steps.length} ${w.steps.length === 1 ? "step" : "steps"}`}
                {w.scissors ? ", scissors" : ", no scissors"}
                {w.regular && w.regular.off_deg > 0.01 && `, corners ${number(w.regular.off_deg, 2)}° off`}
                {w.leftovers.length > 0 &&
                  `, leaves ${w.leftovers.map((l) => sheetSize(l.width_mm, l.height_mm, units)).join(" and ")}`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** A way step by step, with what comes out of it. */
export function WaySteps({
  way,
  colours,
  narrow,
}: {
  way: Way;
  colours: { front: string; back: string };
  narrow?: boolean;
}) {
  const units = useUnits();
  return (
    <div>
      {way.turned && <p className="mb-2">Lay the sheet upright first, its short edge towards you.</p>}
      <ol className={`grid gap-4 ${narrow ? "" : "sm:grid-cols-2 xl:grid-cols-3"}`}>
        {way.steps.map((s, i) => (
          <li key={i} className="border border-line bg-panel p-3">
            <PaperPicture
              picture={s.before}
              next={s.next}
              colours={colours}
              label={s.words}
              className="h-48 w-full"
            />
            <p className="mt-2">
              <b>{i + 1}</b> {s.words}
            </p>
            {s.cautions.map((c) => (
              <p
                key={c.id}
                className="mt-2 border-2 border-on-mark bg-caution px-2 py-1 text-sm text-on-mark"
              >
                <b>{c.title}.</b> {c.text}
              </p>
            ))}
          </li>
        ))}
        <li className="border-2 border-ink bg-panel p-3">
          <PaperPicture
            picture={way.piece}
            colours={colours}
            label="The piece that comes out"
            className="h-48 w-full"
          />
          <p className="mt-2">
            <b>{sheetSize(way.width_mm, way.height_mm, units)}</b>
            {way.corners !== 4 && `, ${way.corners} corners`}
            {way.regular &&
              `, sides of ${smallLength(way.regular.side_mm, units)}${way.regular.off_mm > 0.005 ? `, the worst ${smallLength(way.regular.off_mm, units, 2)} off even if folded exactly` : ", exactly equal if folded exactly"}`}
            {way.made.length > 0 && ". The creases stay in it."}
          </p>
        </li>
      </ol>
      {way.offs.length > 0 && (
        <p className="mt-3 text-sm text-quiet">
          ± {smallLength(way.error_mm, units, 2)} is an estimate for a careful hand, one standard deviation:{" "}
          {way.offs.map((o) => `${o.what} ${smallLength(o.mm, units, 2)}`).join(", ")}. Times are estimates
          too.
        </p>
      )}
    </div>
  );
}
