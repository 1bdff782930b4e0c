import { Dialog } from "radix-ui";
import { activeShortcuts } from "../keys";

const names: Record<string, string> = { " ": "Space", ArrowRight: "→", ArrowLeft: "←" };

/** The keys that work in the view that is open. */
export function ShortcutList({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-[#0d1f20]/50" />
        <Dialog.Content className="fixed top-1/2 left-1/2 max-h-[90dvh] w-[min(30rem,94vw)] -translate-1/2 overflow-auto border-2 border-ink bg-panel p-5">
          <Dialog.Title className="title text-2xl">Keys</Dialog.Title>
          <Dialog.Description className="mt-1 text-quiet">
            They work here and now, unless you are typing. Digits typed while trying a toy are a distance.
          </Dialog.Description>
          <table className="mt-4 w-full">
            <tbody>
              {open &&
                activeShortcuts().map((s) => (
                  <tr key={s.key + s.label} className="border-t border-line">
                    <th scope="row" className="w-20 py-1.5 text-left">
                      <kbd className="title">{names[s.key] ?? s.key}</kbd>
                    </th>
                    <td>{s.label}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          <Dialog.Close className="mt-5 min-h-11 border-2 border-ink bg-ink px-4 font-semibold text-panel">
            Close
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
