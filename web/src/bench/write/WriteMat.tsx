import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Mark, Written, WrittenToy } from "../../api/client";
import { question } from "../../api/queries";
import type { Ready } from "../frame/useBench";
import { Button, Check, Choice } from "../../parts/controls";
import { PaperPicture } from "../../parts/PaperPicture";
import { FromPack } from "./FromPack";
import { PlaceForm } from "./PlaceForm";
import { PrintWritten } from "./PrintWritten";

/** The toy with what is written on it: press a place and write, fill it from a pack, print it. */
export function WriteMat({ ready }: { ready: Ready }) {
  const { build, bench, setup, good } = ready;
  const answer = useQuery(question.written(build.pattern, setup));
  const [view, setView] = useState("");
  const [place, setPlace] = useState("");
  const toy = answer.data;
  if (!toy) return <p>{answer.error ? answer.error.message : "Laying out what is written…"}</p>;
  const written = setup.written ?? {};
  const keep = (change: Written) => bench.keep({ ...setup, written: { ...written, ...change } });
  const shown = toy.views.find((v) => v.name === view) ?? toy.views[0];
  const seen = placesIn(shown);
  const here = toy.places.filter((p) => seen.includes(p.name));
  const chosen = here.find((p) => p.name === place) ?? here[0];
  const go = (name: string) => {
    const sees = toy.views.find((v) => placesIn(v).includes(name));
    if (sees && !seen.includes(name)) setView(sees.name);
    setPlace(name);
  };
  const mark = (change: Mark) => chosen && void keep({ [chosen.name]: change });
  const next = () => {
    const i = here.findIndex((p) => p.name === chosen?.name);
    const then = here[(i + 1) % here.length];
    if (then) setPlace(then.name);
  };
  const messages = toy.places.filter((p) => toy.zones.some((z) => z.name === p.zone && z.read));
  const unread = messages.filter((p) => written[p.name]?.text && !written[p.name]?.read);
  const colours = { front: good.sheet.front, back: good.sheet.back };
  return (
    <div className="mt-3 flex min-w-0 flex-col gap-4" data-write="">
      <Choice
        label="Seen from"
        value={shown?.name ?? ""}
        options={toy.views.map((v) => ({ value: v.name, label: v.title }))}
        onChange={setView}
      />
      <div className="grid items-start gap-4 md:grid-cols-2">
        {shown && (
          <figure>
            <PaperPicture
              picture={shown.picture}
              colours={colours}
              label={`${shown.title}: ${shown.says}`}
              className="h-[20rem] w-full lg:h-[25rem]"
              chosen={chosen?.name ?? ""}
              onZone={setPlace}
            />
            <figcaption className="text-sm text-quiet">
              {shown.says} Press a place on it, or choose it from the list, and write.
            </figcaption>
          </figure>
        )}
        <div className="flex min-w-0 flex-col gap-4">
          {chosen && (
            <PlaceForm
              key={chosen.name}
              toy={toy}
              place={chosen}
              places={here}
              mark={written[chosen.name] ?? {}}
              onPlace={setPlace}
              onMark={mark}
              onNext={next}
            />
          )}
          <FromPack ready={ready} onFill={(w) => void bench.keep({ ...setup, written: w })} />
          {messages.length > 0 && (
            <div>
              <Check
                checked={unread.length === 0}
                onChange={(read) =>
                  void keep(
                    Object.fromEntries(
                      messages
                        .filter((p) => written[p.name]?.text)
                        .map((p) => [p.name, { ...written[p.name], read }]),
                    ),
                  )
                }
              >
                A leader has read all messages
              </Check>
              <p className="text-sm text-quiet">
                Be kind, and write nothing about real people: no names, no looks, no addresses.
              </p>
            </div>
          )}
        </div>
      </div>
      <Faults toy={toy} onGo={go} />
      <PrintWritten ready={ready} toy={toy} />
    </div>
  );
}

/** The places that a view shows. */
const placesIn = (v: WrittenToy["views"][number] | undefined) => [
  ...new Set((v?.picture.written ?? []).flatMap((w) => (w.zone ? [w.zone] : []))),
];

/** How many are listed before the others are counted. */
const mostListed = 4;

/** What to look at before it is printed. */
function Faults({ toy, onGo }: { toy: WrittenToy; onGo: (place: string) => void }) {
  const [all, setAll] = useState(false);
  if (toy.faults.length === 0)
    return <p className="border-l-4 border-tide pl-3">Every place has what it needs, and every text fits.</p>;
  // Empty places are the least of it: they come last.
  const order = [...toy.faults].sort((a, b) => Number(a.kind === "empty") - Number(b.kind === "empty"));
  const shown = all ? order : order.slice(0, mostListed);
  return (
    <section
      aria-label="Before it is printed"
      className="border-2 border-on-mark bg-caution p-3 text-on-mark"
    >
      <h2 className="text-lg">
        Before it is printed: {toy.faults.length} {toy.faults.length === 1 ? "thing" : "things"} to look at
      </h2>
      <ul className="mt-1 space-y-1">
        {shown.map((f, i) => (
          <li key={i} data-fault={f.kind}>
            {f.says}{" "}
            {f.place && (
              <button
                type="button"
                className="min-h-9 font-semibold underline underline-offset-4"
                onClick={() => onGo(f.place)}
              >
                Go there
              </button>
            )}
          </li>
        ))}
      </ul>
      {order.length > mostListed && (
        <Button className="mt-2" onClick={() => setAll(!all)}>
          {all ? "Fewer" : `All ${order.length}`}
        </Button>
      )}
    </section>
  );
}
