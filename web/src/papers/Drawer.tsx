import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, paperInput, type Paper } from "../api/client";
import { usePlainPaper } from "../paper";
import { question, changed } from "../api/queries";
import { Button, Caution } from "../parts/controls";
import { Faces } from "../parts/Faces";
import { useUnits } from "../settings";
import { noteUndo, offerUndo } from "../undo";
import { number, sheetSize, thickness } from "../units";
import { PaperForm } from "./PaperForm";
import { Uses } from "./Uses";

const ways: Record<string, string> = { fly: "Fly", hop: "Hop", flap: "Flap", spin: "Spin", reveal: "Reveal" };

/** Papers of one's own, what each is good for, and leftovers. */
export function Drawer() {
  usePlainPaper(); // known before a form is opened that begins with it
  const queries = useQueryClient();
  const papers = useQuery(question.papers());
  const [editing, setEditing] = useState<number | "new" | null>(null);
  const refresh = () => changed.papers(queries);
  const done = (changed: boolean) => {
    setEditing(null);
    if (changed) void refresh();
  };
  return (
    <div className="space-y-5">
      {papers.error && <Caution title="The drawer cannot be shown">{papers.error.message}</Caution>}
      {papers.data?.length === 0 && editing === null && (
        <p className="max-w-prose text-lg">
          The drawer is empty. Put in the papers that you have: what they weigh and how thick they are decides
          what can be folded from them.
        </p>
      )}
      {editing === "new" ? (
        <PaperForm paper={null} onDone={done} />
      ) : (
        <Button weight="now" className="text-lg" onClick={() => setEditing("new")}>
          Put a paper into the drawer
        </Button>
      )}
      <ul className="grid gap-4 lg:grid-cols-2">
        {papers.data?.map((p) =>
          editing === p.id ? (
            <li key={p.id} className="lg:col-span-2">
              <PaperForm paper={p} onDone={done} />
            </li>
          ) : (
            <Card key={p.id} paper={p} onEdit={() => setEditing(p.id)} refresh={refresh} />
          ),
        )}
      </ul>
    </div>
  );
}

function Card({
  paper: p,
  onEdit,
  refresh,
}: {
  paper: Paper;
  onEdit: () => void;
  refresh: () => Promise<void>;
}) {
  const units = useUnits();
  const [using, setUsing] = useState(false);
  const [why, setWhy] = useState<string | null>(null);
  const bin = async () => {
    await api.binPaper(p.id);
    await refresh();
    offerUndo(`${p.name} is in the bin`, { do: "restore paper", id: p.id });
  };
  const count = async (left: number) => {
    await api.changePaper(p.id, { ...paperInput(p), left });
    noteUndo(`the count of ${p.name}`, { do: "change paper", id: p.id, paper: paperInput(p) });
    await refresh();
  };
  const reason = p.suits.find((s) => s.moves === why);
  return (
    <li className={`border border-line bg-panel p-4 ${using ? "lg:col-span-2" : ""}`}>
      <div className="flex items-start justify-between gap-3">
        <div>
          <h2 className="text-2xl">
            <Faces front={p.sheet.front} back={p.sheet.back} /> {p.name}
          </h2>
          <p>
            {p.size && <b>{p.size}, </b>}
            {sheetSize(p.sheet.width_mm, p.sheet.height_mm, units)}
          </p>
          <p className="text-sm text-quiet">
            {number(p.sheet.gsm)} g/m², {thickness(p.sheet.thickness_mm, units)} thick, {p.stiffness}
            {p.grain && `, grain along the ${p.grain}`}
          </p>
        </div>
        {p.left !== undefined && (
          <div className="text-right">
            <p className="figure text-4xl">{p.left}</p>
            <p className="text-sm text-quiet">left</p>
            <div className="flex">
              <button
                type="button"
                className="min-h-11 min-w-11 border-2 border-ink bg-panel"
                aria-label={`One sheet of ${p.name} less`}
                disabled={p.left === 0}
                onClick={() => void count((p.left ?? 1) - 1)}
              >
                −
              </button>
              <button
                type="button"
                className="-ml-0.5 min-h-11 min-w-11 border-2 border-ink bg-panel"
                aria-label={`One sheet of ${p.name} more`}
                onClick={() => void count((p.left ?? 0) + 1)}
              >
                +
              </button>
            </div>
          </div>
        )}
      </div>
      <div role="group" aria-label={`What ${p.name} is good for`} className="mt-3 flex flex-wrap">
        {p.suits.map((s) => (
          <button
            key={s.moves}
            type="button"
            aria-pressed={why === s.moves}
            onClick={() => setWhy(why === s.moves ? null : s.moves)}
            className="-mr-0.5 -mb-0.5 min-h-11 border-2 border-ink bg-panel px-3 text-left aria-pressed:bg-ink aria-pressed:text-panel"
          >
            <b>{ways[s.moves]}</b>{" "}
            <span aria-hidden="true">{{ good: "●●●", fair: "●●○", poor: "●○○" }[s.verdict]}</span>{" "}
            <span className="text-sm">{s.verdict}</span>
          </button>
        ))}
      </div>
      {reason ? (
        <p className="mt-2" role="status">
          {ways[reason.moves]}, {reason.verdict}: {reason.why}. A rule of thumb; your trials overrule it.
        </p>
      ) : (
        <p className="mt-2 text-sm text-quiet">Press one for the reason. Rules of thumb.</p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button onClick={onEdit}>Change</Button>
        <Button aria-expanded={using} onClick={() => setUsing(!using)}>
          What can be made of it
        </Button>
        <Button aria-label={`Put ${p.name} into the bin`} onClick={() => void bin()}>
          Bin
        </Button>
      </div>
      {using && (
        <div className="mt-4">
          <Uses sheet={{ ...p.sheet, paper: p.name }} />
        </div>
      )}
    </li>
  );
}
