import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { api, type BuildCard } from "../api/client";
import { changed, question } from "../api/queries";
import { PaperPicture } from "../parts/PaperPicture";
import { useMoves } from "../parts/useMoves";
import { useUnits } from "../settings";
import { offerUndo } from "../undo";
import { recordValue, sheetSize } from "../units";

/** A build with its last result and what to do next with it. */
export function OnBench({
  build: b,
  place,
  turn,
  done,
}: {
  build: BuildCard;
  place: number;
  turn: number;
  done: (i: number) => void;
}) {
  const units = useUnits();
  const queries = useQueryClient();
  const bin = async () => {
    await api.binBuild(b.id);
    await changed.builds(queries);
    offerUndo(`${b.name} is in the bin`, { do: "restore build", id: b.id });
  };
  const next = useQuery({ ...question.next(b), enabled: turn >= place });
  const { isFetched } = next;
  useEffect(() => {
    if (isFetched) done(place);
  }, [isFetched, done, place]);
  const way = useMoves()?.find((w) => w.name === b.moves);
  const record = way?.records.find((r) => r.id === b.record);
  const unit = record?.unit ?? "";
  const d = b.stats;
  return (
    <li className="flex border border-line bg-panel">
      <Link to={`/bench/${b.id}`} className="flex min-w-0 grow items-start gap-3 p-2 hover:bg-ground">
        {b.picture && (
          <PaperPicture
            thin
            picture={b.picture}
            colours={{ front: b.sheet.front, back: b.sheet.back }}
            label=""
            className="h-14 w-16 shrink-0"
          />
        )}
        <span className="min-w-0">
          <span className="title block text-lg">{b.name}</span>
          <span className="block text-sm text-quiet">
            {b.title}, {b.size || sheetSize(b.sheet.width_mm, b.sheet.height_mm, units)}
            {b.parent_id ? ", child build" : ""}
          </span>
          {d.n > 0 ? (
            <span className="block text-sm">
              <span className="title text-xl text-tide">{recordValue(d.median, unit, units)}</span>{" "}
              <span className="text-quiet">
                {record && !unit && `${record.label.toLowerCase()}, `}
                <span className="whitespace-nowrap">median of {d.n}</span>,{" "}
                <span className="whitespace-nowrap">best {recordValue(d.best, unit, units)}</span>
                {b.last !== undefined && (
                  <>
                    , <span className="whitespace-nowrap">last {recordValue(b.last, unit, units)}</span>
                  </>
                )}
                {b.last_seen.length > 0 && `, ${b.last_seen.join(", ")}`}
              </span>
            </span>
          ) : (
            <span className="block text-sm text-quiet">
              {b.step === 0
                ? "not begun"
                : b.step < b.steps
                  ? `folded to step ${b.step} of ${b.steps}`
                  : way?.words.untried}
            </span>
          )}
          {next.data && (
            <span className="block text-sm" data-next="">
              <b>Next</b>:{" "}
              {next.data.do
                ? `${next.data.do.replace(/\.$/, "")}${next.data.where ? `, ${next.data.where}` : ""}`
                : next.data.says}
            </span>
          )}
        </span>
      </Link>
      <button
        type="button"
        className="border-l border-line px-2 text-sm text-quiet hover:bg-ground"
        aria-label={`Bin: put ${b.name} into the bin`}
        onClick={() => void bin()}
      >
        Bin
      </button>
    </li>
  );
}
