import { useQuery } from "@tanstack/react-query";
import { type School } from "../../api/client";
import { question } from "../../api/queries";
import { Button } from "../../parts/controls";
import { useUnits } from "../../settings";
import { number, outcomeRange, outcomeValue, recordValue } from "../../units";
import { useConditions } from "../../parts/conditions";
import type { Ready } from "../frame/useBench";

/** Where folders disagree: both ways side by side, and the plan that settles it. */
export function Schools({ ready }: { ready: Ready }) {
  const { build, way, setup } = ready;
  const [how] = useConditions(way);
  const answer = useQuery(question.schools(build, setup, how));
  if (!answer.data) return <p>{answer.error ? answer.error.message : "Trying both ways…"}</p>;
  if (answer.data.length === 0) return <p>Folders agree on all knobs that this pattern has.</p>;
  return (
    <div className="flex flex-col gap-6">
      {answer.data.map((s) => (
        <One key={s.id} ready={ready} school={s} />
      ))}
    </div>
  );
}

function One({ ready, school: s }: { ready: Ready; school: School }) {
  const { way } = ready;
  return (
    <section aria-label={s.question} data-school={s.id}>
      <h2 className="text-xl">{s.question}</h2>
      <div className="mt-2 grid gap-4 sm:grid-cols-2">
        <Side ready={ready} letter="A" words={s.a} side={s.side_a} question={s.question} />
        <Side ready={ready} letter="B" words={s.b} side={s.side_b} question={s.question} />
      </div>
      <p className="mt-2">
        <b>Plan</b>: {s.each} {way.words.many} each, all set off alike. {s.order} Then log the other. Single{" "}
        {way.words.many} scatter by {number(100 * s.scatter, 0)} %.
      </p>
      {s.verdict && (
        <p className="mt-1 border-2 border-tide p-3" data-verdict="">
          {s.verdict}
        </p>
      )}
    </section>
  );
}

function Side({
  ready,
  letter,
  words,
  side,
  question,
}: {
  ready: Ready;
  letter: string;
  words: string;
  side: School["side_a"];
  question: string;
}) {
  const units = useUnits();
  const { bench, build, setup } = ready;
  const o = side.outlook;
  const set = async () => {
    const next = { ...setup, knobs: side.knobs };
    if (await bench.keep(next)) await bench.settle(`${question} ${letter}: ${words}`);
  };
  const now = build.at === side.tweak && !build.draft;
  return (
    <div className="border border-line bg-panel p-3">
      <p>
        <b>{letter}</b>: {words}
      </p>
      <p className="mt-1">
        <span className="figure text-3xl text-lavender">{outcomeValue(o.middle, o, units)}</span>{" "}
        <span className="text-sm text-quiet">predicted, {outcomeRange(o, units)}</span>
      </p>
      {side.stats ? (
        <p>
          <span className="title text-xl text-tide">{recordValue(side.stats.median, o.unit, units)}</span>{" "}
          <span className="text-sm text-quiet">
            measured at tweak {side.tweak}, n = {side.stats.n}
          </span>
        </p>
      ) : (
        <p className="text-sm text-quiet">
          {side.tweak > 0 ? `Tweak ${side.tweak} is set so; nothing logged yet.` : "Not set so yet."}
        </p>
      )}
      {now ? (
        <p className="mt-1 text-sm font-semibold">On the table now.</p>
      ) : (
        <Button className="mt-2" onClick={() => void set()}>
          Set it up as {letter}
        </Button>
      )}
    </div>
  );
}
