import { toast } from "./toast";

// What can be taken back in this window, newest last. Everything taken away lies
// in the bin as well, so nothing depends on this list.
interface Undoable {
  label: string;
  back: () => Promise<unknown>;
}

const done: Undoable[] = [];

/** Notes a change that can be undone and says so. */
export function offerUndo(label: string, back: () => Promise<unknown>) {
  const entry = { label, back };
  done.push(entry);
  toast(label, { action: { label: "Undo", onClick: () => void take(entry) } });
}

/** Notes a change that can be undone without saying so: it is seen anyway. */
export function noteUndo(label: string, back: () => Promise<unknown>) {
  done.push({ label, back });
}

async function take(entry: Undoable) {
  const i = done.indexOf(entry);
  if (i < 0) return;
  done.splice(i, 1);
  try {
    await entry.back();
    toast(`Undone: ${entry.label}`);
  } catch (e) {
    toast.error(e instanceof Error ? e.message : "It could not be undone; look in the bin.");
  }
}

/** Undoes the newest change. */
export function undoLast() {
  const entry = done.at(-1);
  if (entry) void take(entry);
  else toast("There is nothing to undo.");
}
