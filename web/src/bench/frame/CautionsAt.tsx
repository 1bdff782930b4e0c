import type { Moving } from "../../api/client";

/** The cautions of a way of moving that belong here. */
export function CautionsAt({ way, at, kind }: { way: Moving; at: "set" | "first" | "kind"; kind?: string }) {
  return (
    <>
      {way.cautions
        .filter((c) => c.at === at && (at !== "kind" || c.kind === kind))
        .map((c) => (
          <div
            key={c.id}
            className="mt-2 border-2 border-on-mark bg-caution p-3 text-on-mark"
            data-caution={c.id}
          >
            <p className="title text-lg">{c.title}</p>
            <p>{c.text}</p>
          </div>
        ))}
    </>
  );
}
