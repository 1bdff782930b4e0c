import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Written } from "../../api/client";
import { question } from "../../api/queries";
import type { Ready } from "../frame/useBench";
import { Button, Caution, Select } from "../../parts/controls";
import { toast } from "../../toast";
import { packWords } from "./packWords";

/** Fills the toy from a pack; another draw takes other messages. */
export function FromPack({ ready, onFill }: { ready: Ready; onFill: (w: Written) => void }) {
  const { data: packs, error } = useQuery(question.packs());
  const [picked, setPicked] = useState("");
  const [seed, setSeed] = useState(0);
  const takes = useQuery(question.written(ready.build.pattern, ready.setup)).data?.zones.some((z) => z.takes);
  const pack = packs?.packs.find((p) => p.id === picked) ?? packs?.packs[0];
  if (error) return <Caution title="The packs cannot be shown">{error.message}</Caution>;
  if (!packs || !pack || !takes) return null;
  const fill = async (draw: number) => {
    setSeed(draw);
    try {
      onFill(await api.filled(ready.build.pattern, ready.setup, pack.id, draw));
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be filled.");
    }
  };
  return (
    <section aria-label="Fill it from a pack" className="flex flex-col gap-2 border-t border-line pt-3">
      <h2 className="text-lg">Fill it from a pack</h2>
      <Select
        label="Pack"
        value={pack.id}
        options={packs.packs.map((p) => ({ value: p.id, label: packWords(p) }))}
        onChange={setPicked}
      />
      {pack.space && <p className="bg-caution px-2 py-1 text-sm text-on-mark">{pack.space}</p>}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void fill(seed)}>Fill it</Button>
        <Button onClick={() => void fill(seed + 1)}>Draw others</Button>
        <Link className="flex min-h-11 items-center underline" to={`/packs/${pack.id}`}>
          Look into the pack
        </Link>
      </div>
    </section>
  );
}
