import { useState } from "react";
import type { Step } from "../../api/client";
import { Check } from "../../parts/controls";

type Aid = NonNullable<Step["aid"]>;

/** What helps with a step: things to look at one by one, a picture, how both hands turn. */
export function StepAid({ aid, build }: { aid: Aid; build: number }) {
  return (
    <section aria-label={aid.title} className="space-y-2 border border-ink p-3" data-aid={aid.kind}>
      <h2 className="text-lg">{aid.title}</h2>
      <p>{aid.says}</p>
      {aid.kind === "rays" ? (
        <Rays aid={aid} build={build} />
      ) : (
        <>
          {aid.kind === "hands" && aid.clock !== 0 && <Twist clockwise={aid.clock > 0} />}
          {aid.lines.length > 0 && <Lines aid={aid} />}
          {aid.kind === "list" ? (
            <Ticks aid={aid} build={build} />
          ) : (
            <ol className="list-inside list-decimal">
              {aid.items.map((i) => (
                <li key={i.label}>{i.label}.</li>
              ))}
            </ol>
          )}
        </>
      )}
    </section>
  );
}

/** What was ticked or tapped is kept in the browser, for each build. */
function useKept(build: number, aid: Aid): [string[], (i: number, v: string) => void] {
  const key = `tussock aid ${build} ${aid.title}`;
  const [kept, setKept] = useState<string[]>(() => {
    try {
      const v: unknown = JSON.parse(localStorage.getItem(key) ?? "[]");
      return Array.isArray(v) ? v.map(String) : [];
    } catch {
      return [];
    }
  });
  return [
    kept,
    (i, v) => {
      const next = aid.items.map((_, k) => (k === i ? v : (kept[k] ?? "")));
      setKept(next);
      try {
        localStorage.setItem(key, JSON.stringify(next));
      } catch {
        // A browser that keeps nothing shows them until it is closed.
      }
    },
  ];
}

function Ticks({ aid, build }: { aid: Aid; build: number }) {
  const [kept, keep] = useKept(build, aid);
  const done = aid.items.filter((_, i) => kept[i] === "done").length;
  return (
    <>
      <ul>
        {aid.items.map((item, i) => (
          <li key={item.label} className="border-t border-line py-1">
            <Check checked={kept[i] === "done"} onChange={(v) => keep(i, v ? "done" : "")}>
              {item.label}
            </Check>
            {item.says && <p className="text-sm text-quiet">{item.says}</p>}
          </li>
        ))}
      </ul>
      <p className="font-semibold" role="status">
        {done} of {aid.items.length} {aid.done}.
      </p>
    </>
  );
}

const boxOf = (aid: Aid): [number, number, number, number] => {
  const xs = aid.lines.flatMap((l) => l.points.filter((_, i) => i % 2 === 0));
  const ys = aid.lines.flatMap((l) => l.points.filter((_, i) => i % 2 === 1));
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const m = 0.06 * Math.max(x1 - x0, y1 - y0);
  return [x0 - m, y0 - m, x1 - x0 + 2 * m, y1 - y0 + 2 * m];
};

function Lines({ aid }: { aid: Aid }) {
  const box = boxOf(aid);
  return (
    <svg viewBox={box.join(" ")} role="img" aria-label={aid.says} className="max-h-40 w-full">
      {aid.lines.map((l, i) => (
        <polyline
          key={i}
          points={l.points.join(",")}
          fill="none"
          stroke={l.heavy ? "var(--ink)" : "var(--line)"}
          strokeWidth={box[2] / (l.heavy ? 80 : 160)}
        />
      ))}
    </svg>
  );
}

/** The senses that a crease goes through as it is tapped. */
const next: Record<string, string> = { "": "ridge", ridge: "valley", valley: "" };

/** The creases round a point: each is tapped as it stands, and those that are wrong are told. */
function Rays({ aid, build }: { aid: Aid; build: number }) {
  const [kept, keep] = useKept(build, aid);
  const box = boxOf(aid);
  const seen = aid.items.filter((_, i) => kept[i]).length;
  const wrong = aid.items.flatMap((item, i) => (kept[i] && kept[i] !== item.want ? [item.label] : []));
  const w = box[2] / 100;
  return (
    <>
      <svg viewBox={box.join(" ")} className="mx-auto max-h-72 w-full" aria-hidden="true">
        {aid.lines.map((l, i) => {
          const item = aid.items[l.item - 1];
          const sense = kept[l.item - 1] ?? "";
          const bad = !!item && sense !== "" && sense !== item.want;
          return (
            <polyline
              key={i}
              points={l.points.join(",")}
              fill={item ? "none" : "var(--panel)"}
              stroke="var(--ink)"
              strokeWidth={bad ? 2.6 * w : w}
              strokeDasharray={
                !item || sense === ""
                  ? undefined
                  : sense === "valley"
                    ? `${4 * w} ${2.5 * w}`
                    : `${5 * w} ${2 * w} ${w} ${2 * w}`
              }
              strokeOpacity={item && sense === "" ? 0.3 : 1}
            />
          );
        })}
      </svg>
      <ul className="grid grid-cols-2 gap-1">
        {aid.items.map((item, i) => {
          const sense = kept[i] ?? "";
          const bad = sense !== "" && sense !== item.want;
          return (
            <li key={item.label}>
              <button
                type="button"
                className={`min-h-11 w-full border px-2 text-left text-sm ${bad ? "border-2 border-on-mark bg-caution text-on-mark" : "border-ink bg-panel hover:bg-ground"}`}
                onClick={() => keep(i, next[sense] ?? "")}
                data-ray={bad ? "wrong" : sense === "" ? "open" : "right"}
              >
                {item.label}: <b>{sense || "tap"}</b>
                {bad && `, should be a ${item.want}`}
              </button>
            </li>
          );
        })}
      </ul>
      <p className="font-semibold" role="status">
        {wrong.length > 0
          ? `${wrong.length} ${wrong.length === 1 ? "crease stands" : "creases stand"} the wrong way: turn ${wrong.length === 1 ? "it" : "them"} over before you gather the sheet.`
          : seen === aid.items.length
            ? "All of them alternate."
            : `${seen} of ${aid.items.length} looked at.`}
      </p>
    </>
  );
}

/** Both hands: one holds the foot, the other turns the tip. */
function Twist({ clockwise }: { clockwise: boolean }) {
  return (
    <svg
      viewBox="-60 -42 120 84"
      role="img"
      aria-label={`From above: the palm on the tip turns ${clockwise ? "clockwise" : "against the clock"} and presses down, the other hand holds the foot`}
      className="mx-auto h-44"
    >
      <g transform={clockwise ? undefined : "scale(-1 1)"} fill="none" stroke="var(--ink)" strokeWidth="1.2">
        <circle r="19" strokeDasharray="2 2" />
        <path d="M8 -14C14 -9 16 -3 16 3C16 12 9 17 0 17C-8 17 -15 12 -15 3C-15 -6 -9 -9 -6 -10L-5 -30C-5 -33 -1 -33 -1 -30L-1 -12L1 -33C1 -36 5 -36 5 -33L4 -12L8 -30C9 -33 13 -32 12 -29L8 -14Z" />
        <path d="M-20 34C-32 30 -40 20 -44 8L-50 -2C-52 -5 -48 -8 -46 -5L-38 6M-38 6L-40 -12C-40 -15 -36 -15 -36 -12L-33 5M-33 5L-31 -10C-31 -13 -27 -13 -27 -10L-26 10" />
        <path d="M24 -18A30 30 0 0 1 30 12" strokeWidth="2.2" />
        <path d="M26 8L30 14L34 7" strokeWidth="2.2" />
      </g>
      <text x="0" y="40" textAnchor="middle" fontSize="6.5" fill="var(--quiet)">
        {clockwise ? "turn clockwise, and press" : "turn against the clock, and press"}
      </text>
    </svg>
  );
}
