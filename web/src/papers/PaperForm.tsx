import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, paperInput, Problem, type Paper, type PaperInput } from "../api/client";
import { question } from "../api/queries";
import { usePlainPaper } from "../paper";
import { Button, Caution, Choice, Field } from "../parts/controls";
import { Colour } from "../parts/Faces";
import { useUnits } from "../settings";
import { offerUndo } from "../undo";
import { number, parse, parseLength, parseNumber } from "../units";
import { SizeFields } from "./SizeFields";
import { sizeInput, toldIn, typed } from "./typedSize";

type Source = "given" | "measured";

/** A paper of one's own: what is known of it, given or measured. */
export function PaperForm({ paper, onDone }: { paper: Paper | null; onDone: (changed: boolean) => void }) {
  const plain = usePlainPaper();
  const units = useUnits();
  const s = paper?.sheet;
  const [name, setName] = useState(paper?.name ?? "");
  const [entered, setSize] = useState(() => typed(s?.width_mm ?? 210, s?.height_mm ?? 297, units));
  const size = toldIn(entered, units);
  const [weight, setWeight] = useState<Source>("given");
  const [gsm, setGSM] = useState(number(s?.gsm ?? 80, 1));
  const [scale, setScale] = useState({ grams: "", sheets: "10" });
  const [thick, setThick] = useState<Source>("given");
  const [thickness, setThickness] = useState(number(s?.thickness_mm ?? 0.1, 3));
  const [pile, setPile] = useState({ high: "", sheets: "100" });
  const [grain, setGrain] = useState<Paper["grain"]>(paper?.grain ?? "");
  const [stiffness, setStiffness] = useState<Paper["stiffness"]>(paper?.stiffness ?? "ordinary");
  const [front, setFront] = useState(s?.front ?? plain.front);
  const [back, setBack] = useState(s?.back ?? plain.back);
  const [faces, setFaces] = useState<"two" | "none">(s && s.front === s.back ? "none" : "two");
  const [left, setLeft] = useState(paper?.left === undefined ? "" : String(paper.left));
  const [problem, setProblem] = useState<Problem | null>(null);

  const sheet = sizeInput(size);
  const numbers = {
    grams: weight === "measured" ? parse(scale.grams, "g") : undefined,
    sheets: parseNumber(scale.sheets),
    high: thick === "measured" ? parseLength(pile.high, units) : undefined,
    pileSheets: parseNumber(pile.sheets),
  };
  const measured = useQuery(question.measurePaper(sheet, numbers));
  const m = measured.data;
  const refused = problem ?? (measured.error instanceof Problem ? measured.error : null);
  const wrong = (field: string) => {
    const text = refused?.field(field);
    return text === undefined ? undefined : text;
  };
  const noNumber = (text: string, example: string, unit: string) =>
    text.trim() !== "" && parse(text, unit) === undefined
      ? `“${text}” is no number; write for example ${example}`
      : undefined;
  const save = async () => {
    const g = weight === "given" ? parse(gsm, "g/m²") : m?.gsm;
    const t = thick === "given" ? parse(thickness, "mm") : m?.thickness_mm;
    if (!sheet || g === undefined || t === undefined) {
      setProblem(
        new Problem(0, "Size, weight and thickness are needed: a number for each, given or measured.", []),
      );
      return;
    }
    const count = left.trim() === "" ? undefined : parseNumber(left);
    if (count !== undefined && !Number.isInteger(count)) {
      setProblem(new Problem(0, `“${left}” is no count of sheets; write for example 20, or nothing`, []));
      return;
    }
    const input: PaperInput = {
      name,
      sheet: {
        ...sheet,
        gsm: Math.round(g * 10) / 10,
        thickness_mm: Math.round(t * 10000) / 10000,
        front,
        back: faces === "none" ? front : back,
      },
      grain,
      stiffness,
      ...(count === undefined ? {} : { left: count }),
    };
    try {
      if (paper) {
        await api.changePaper(paper.id, input);
        offerUndo(`${name} is changed`, { do: "change paper", id: paper.id, paper: paperInput(paper) });
      } else {
        const { id } = await api.addPaper(input);
        offerUndo(`${name} is in the drawer`, { do: "bin paper", id });
      }
      onDone(true);
    } catch (e) {
      if (e instanceof Problem) setProblem(e);
    }
  };
  return (
    <form
      aria-label={paper ? `Change ${paper.name}` : "A new paper"}
      className="space-y-5 border-2 border-ink bg-panel p-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
      onChange={() => setProblem(null)}
    >
      <Field
        label="Name of the paper"
        value={name}
        maxLength={80}
        problem={wrong("name")}
        onChange={(e) => setName(e.target.value)}
      />
      <SizeFields value={size} problem={refused} onChange={setSize} />
      <div className="grid gap-5 sm:grid-cols-2">
        <div className="space-y-2">
          <Choice
            label="Weight"
            value={weight}
            options={[
              { value: "given", label: "printed on the packet" },
              { value: "measured", label: "from a scale" },
            ]}
            onChange={setWeight}
          />
          {weight === "given" ? (
            <Field
              label="Paper weight"
              unit="g/m²"
              inputMode="decimal"
              value={gsm}
              problem={wrong("gsm") ?? noNumber(gsm, "80", "g/m²")}
              onChange={(e) => setGSM(e.target.value)}
            />
          ) : (
            <>
              <div className="grid grid-cols-2 gap-3">
                <Field
                  label="They weigh"
                  unit="g"
                  inputMode="decimal"
                  value={scale.grams}
                  problem={wrong("grams") ?? noNumber(scale.grams, "50", "g")}
                  onChange={(e) => setScale({ ...scale, grams: e.target.value })}
                />
                <Field
                  label="Sheets on the scale"
                  inputMode="numeric"
                  value={scale.sheets}
                  problem={wrong("sheets")}
                  onChange={(e) => setScale({ ...scale, sheets: e.target.value })}
                />
              </div>
              {m?.gsm !== undefined && (
                <p>
                  <b className="title text-2xl">{number(m.gsm, 1)}</b> ± {number(m.gsm_by ?? 0, 1)} g/m², for
                  a scale read to 1 g. More sheets make it surer.
                </p>
              )}
            </>
          )}
        </div>
        <div className="space-y-2">
          <Choice
            label="Thickness"
            value={thick}
            options={[
              { value: "given", label: "known" },
              { value: "measured", label: "from a pile" },
            ]}
            onChange={setThick}
          />
          {thick === "given" ? (
            <Field
              label="Thickness of one sheet"
              unit="mm"
              inputMode="decimal"
              value={thickness}
              problem={wrong("thickness_mm") ?? noNumber(thickness, "0.1", "mm")}
              onChange={(e) => setThickness(e.target.value)}
            />
          ) : (
            <>
              <div className="grid grid-cols-2 gap-3">
                <Field
                  label="The pile is high"
                  unit={units}
                  value={pile.high}
                  problem={wrong("pile_mm")}
                  onChange={(e) => setPile({ ...pile, high: e.target.value })}
                />
                <Field
                  label="Sheets in the pile"
                  inputMode="numeric"
                  value={pile.sheets}
                  problem={wrong("pile_sheets")}
                  onChange={(e) => setPile({ ...pile, sheets: e.target.value })}
                />
              </div>
              {m?.thickness_mm !== undefined && (
                <p>
                  <b className="title text-2xl">{number(m.thickness_mm, 3)}</b> ±{" "}
                  {number(m.thickness_by ?? 0, 3)} mm each, pressed flat by hand.
                </p>
              )}
            </>
          )}
          {thick === "given" && m?.usual_mm !== undefined && (
            <Button onClick={() => setThickness(number(m.usual_mm ?? 0, 3))}>
              Take {number(m.usual_mm, 3)} mm, usual for this weight
            </Button>
          )}
        </div>
      </div>
      {m?.odd && (
        <Caution still title="Weight and thickness hardly belong together">
          Paper is 400 to 1400 kg/m³. Count the sheets again, and press the pile flat.
        </Caution>
      )}
      <div>
        <Choice
          label="Grain runs along"
          value={grain}
          options={[
            { value: "", label: "not known" },
            { value: "width", label: "the width" },
            { value: "height", label: "the height" },
          ]}
          onChange={setGrain}
        />
        <p className="mt-1 text-sm text-quiet">
          Bend test: curl the sheet gently, without a crease, first left to right, then bottom to top. It
          gives way more easily round the grain: where it curls easily from left to right, the grain runs
          along the height.
        </p>
      </div>
      <Choice
        label="Stiffness, for its thickness"
        value={stiffness}
        options={[
          { value: "soft", label: "soft, like tissue" },
          { value: "ordinary", label: "ordinary" },
          { value: "crisp", label: "crisp, it rattles" },
        ]}
        onChange={setStiffness}
      />
      <div>
        <Choice
          label="Faces"
          value={faces}
          options={[
            { value: "two", label: "two colours" },
            { value: "none", label: "both alike" },
          ]}
          onChange={setFaces}
        />
        <div className="mt-2 flex gap-6">
          <Colour label={faces === "none" ? "Both faces" : "Front"} value={front} onChange={setFront} />
          {faces === "two" && <Colour label="Back" value={back} onChange={setBack} />}
        </div>
      </div>
      <Field
        label="Sheets left (empty: not counted)"
        inputMode="numeric"
        value={left}
        problem={wrong("left")}
        onChange={(e) => setLeft(e.target.value)}
      />
      {problem && problem.fields.length === 0 && <Caution title="Not kept yet">{problem.message}</Caution>}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="now" className="grow text-lg">
          {paper ? "Keep the changes" : "Put it into the drawer"}
        </Button>
        <Button onClick={() => onDone(false)}>Leave it</Button>
      </div>
    </form>
  );
}
