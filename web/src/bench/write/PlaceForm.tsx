import { useRef, useState } from "react";
import { api, type Mark, type WrittenToy } from "../../api/client";
import { Button, Field, Select } from "../../parts/controls";
import { toast } from "../../toast";
import { number } from "../../units";

/** What stands in one place: text, colour, picture. */
export function PlaceForm({
  toy,
  place,
  places,
  mark,
  onPlace,
  onMark,
  onNext,
}: {
  toy: WrittenToy;
  place: WrittenToy["places"][number];
  places: WrittenToy["places"];
  mark: Mark;
  onPlace: (name: string) => void;
  onMark: (m: Mark) => void;
  onNext: () => void;
}) {
  const zone = toy.zones.find((z) => z.name === place.zone);
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? mark.text ?? "";
  const settled = () => {
    if (text === null) return;
    setText(null);
    // Somebody must read it anew.
    if (text.trim() !== (mark.text ?? "")) onMark({ ...mark, text: text.trim(), read: false });
  };
  if (!zone) return null;
  return (
    <form
      className="flex flex-col gap-3 border-2 border-ink p-3"
      aria-label={place.label}
      onSubmit={(e) => {
        e.preventDefault();
        settled();
        onNext();
      }}
    >
      <Select
        label="Place"
        value={place.name}
        options={places.map((p) => ({ value: p.name, label: p.label }))}
        onChange={(p) => {
          settled();
          onPlace(p);
        }}
      />
      <p className="text-sm text-quiet">
        {zone.says} It shows {place.shown}.
      </p>
      {zone.texts && (
        <div className="flex items-end gap-2">
          <Field
            label={zone.numbers ? "Number" : "Text"}
            className="grow"
            value={shown}
            maxLength={120}
            {...(zone.numbers ? { inputMode: "numeric" as const } : {})}
            hint={place.type_mm > 0 ? `set in letters ${number(place.type_mm, 1)} mm high` : "empty"}
            onChange={(e) => setText(e.target.value)}
            onBlur={settled}
          />
          <Button type="submit" className="mb-6">
            Next
          </Button>
        </div>
      )}
      {zone.colours && (
        <fieldset>
          <legend className="text-sm font-semibold">Colour</legend>
          <div className="flex flex-wrap gap-1">
            <Button
              className="px-3 text-sm"
              aria-pressed={!mark.colour}
              onClick={() => onMark({ ...mark, colour: "" })}
            >
              none
            </Button>
            {toy.tints.map(({ colour: c, name }) => (
              <Button
                key={c}
                className="px-3 text-sm"
                aria-pressed={mark.colour === c}
                onClick={() => onMark({ ...mark, colour: c })}
              >
                <span
                  aria-hidden
                  className="mr-1 inline-block size-3.5 border border-ink"
                  style={{ background: c }}
                />
                {name.toLowerCase()}
              </Button>
            ))}
          </div>
        </fieldset>
      )}
      {zone.pictures && (
        <fieldset>
          <legend className="text-sm font-semibold">Picture</legend>
          <div className="flex flex-wrap gap-1">
            <Button
              className="px-3 text-sm"
              aria-pressed={!mark.picture}
              onClick={() => onMark({ ...mark, picture: "" })}
            >
              none
            </Button>
            {toy.shapes.map((s) => (
              <button
                key={s.name}
                type="button"
                aria-label={s.name}
                aria-pressed={mark.picture === s.name}
                title={s.name}
                className="size-11 border-2 border-line bg-[#fdfdf8] aria-pressed:border-4 aria-pressed:border-ink"
                onClick={() => onMark({ ...mark, picture: s.name })}
              >
                <svg viewBox="0 0 1 1" aria-hidden>
                  {s.parts.map((p, i) => (
                    <polygon key={i} points={p.points.join(",")} fill={p.colour} />
                  ))}
                </svg>
              </button>
            ))}
          </div>
          {zone.own && (
            <OwnPicture chosen={mark.picture ?? ""} onTake={(picture) => onMark({ ...mark, picture })} />
          )}
        </fieldset>
      )}
    </form>
  );
}

/** A picture of one's own, PNG or SVG. */
function OwnPicture({ chosen, onTake }: { chosen: string; onTake: (name: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      onTake((await api.addImage(file)).name);
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "The picture could not be taken in.");
    }
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <input
        ref={input}
        type="file"
        accept="image/png,image/svg+xml"
        className="sr-only"
        tabIndex={-1}
        aria-label="A picture of your own, PNG or SVG"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      <Button onClick={() => input.current?.click()}>A picture of your own…</Button>
      <span className="text-sm text-quiet">
        {chosen.startsWith("own:")
          ? "One of your own is on this face."
          : "PNG or SVG, up to 1 MB; its middle is taken."}
      </span>
    </div>
  );
}
