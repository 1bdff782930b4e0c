import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useState } from "react";
import { useNavigate } from "react-router";
import { question } from "../api/queries";
import { activeShortcuts } from "../keys";

const item = "cursor-pointer px-3 py-2 data-[selected=true]:bg-ink data-[selected=true]:text-panel";

/** Every command, build and pattern by typing a part of its name. */
export function Palette({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const [typed, setTyped] = useState("");
  const builds = useQuery({ ...question.builds(), enabled: open });
  const patterns = useQuery({ ...question.patterns(), enabled: open });
  const close = () => {
    setTyped("");
    onClose();
  };
  const go = (to: string) => () => {
    close();
    void navigate(to);
  };
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(o) => !o && close()}
      label="Find a command, build or pattern"
      overlayClassName="fixed inset-0 bg-[#0d1f20]/50"
      contentClassName="fixed top-[12vh] left-1/2 w-[min(34rem,94vw)] -translate-x-1/2 border-2 border-ink bg-panel"
    >
      <Command.Input
        value={typed}
        // The key that opens this may still arrive here; no name begins with it.
        onValueChange={(v) => setTyped(v.replace(/^\//, ""))}
        placeholder="Type what you look for"
        className="w-full border-b-2 border-ink bg-panel p-3 text-lg"
      />
      <Command.List className="max-h-[60vh] overflow-auto p-2">
        <Command.Empty className="p-3">Nothing has that name.</Command.Empty>
        <Command.Group heading="Do" className="text-quiet">
          {open &&
            activeShortcuts().map((s) => (
              <Command.Item
                key={s.key + s.label}
                className={`${item} text-ink`}
                onSelect={() => {
                  close();
                  s.run();
                }}
              >
                {s.label}
              </Command.Item>
            ))}
          <Command.Item className={`${item} text-ink`} onSelect={go("/papers")}>
            Look at papers: sizes, divisions, cuts
          </Command.Item>
          <Command.Item className={`${item} text-ink`} onSelect={go("/packs")}>
            Look at packs: words to spell, messages to open
          </Command.Item>
          <Command.Item className={`${item} text-ink`} onSelect={go("/settings")}>
            Go to the settings
          </Command.Item>
          <Command.Item className={`${item} text-ink`} onSelect={go("/bin")}>
            Look into the bin
          </Command.Item>
        </Command.Group>
        <Command.Group heading="Builds" className="text-quiet">
          {builds.data?.map((b) => (
            <Command.Item
              key={b.id}
              value={`${b.name} build ${b.id}`}
              className={`${item} text-ink`}
              onSelect={go(`/bench/${b.id}`)}
            >
              {b.name}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Patterns" className="text-quiet">
          {patterns.data?.map((p) => (
            <Command.Item
              key={p.id}
              value={`start ${p.title}`}
              className={`${item} text-ink`}
              onSelect={go(`/start/${p.id}`)}
            >
              Start a build of {p.title}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
