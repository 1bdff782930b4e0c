import { useEffect } from "react";

/** A shortcut: the key as KeyboardEvent.key names it, and what it does in words. */
export interface Shortcut {
  key: string;
  label: string;
  run: () => void;
}

const active = new Map<object, Shortcut[]>();
const watchers = new Set<() => void>();

/** All shortcuts that work now, the innermost view's first. */
export function activeShortcuts(): Shortcut[] {
  return [...active.values()].reverse().flat();
}

export function watchShortcuts(f: () => void) {
  watchers.add(f);
  return () => watchers.delete(f);
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName))
  );
}

/** Shortcuts that hold while a view is shown. They rest while somebody types. */
export function useShortcuts(shortcuts: Shortcut[]) {
  useEffect(() => {
    const token = {};
    active.set(token, shortcuts);
    watchers.forEach((f) => f());
    const press = (e: KeyboardEvent) => {
      if (e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      if (document.querySelector("[role=dialog]")) return;
      const target = e.target instanceof HTMLElement ? e.target : null;
      // Buttons, sliders and tabs have keys of their own.
      if (e.key === " " && target?.closest("button, a, summary, [role=slider]")) return;
      if (e.key.startsWith("Arrow") && target?.closest("[role=slider], [role=radiogroup]")) return;
      const hit = shortcuts.find((s) => s.key === e.key);
      if (hit) {
        e.preventDefault();
        hit.run();
      }
    };
    window.addEventListener("keydown", press);
    return () => {
      active.delete(token);
      window.removeEventListener("keydown", press);
    };
  }, [shortcuts]);
}
