import { useEffect } from "react";
import { mayBecome } from "./amount";

/** A shortcut: the key as KeyboardEvent.key names it, and what it does in words. */
export interface Shortcut {
  key: string;
  label: string;
  run: () => void;
  /** Pressed together with Ctrl, or with the command key. */
  ctrl?: boolean;
  /** Works while a number is being typed, where it cannot be a part of it. */
  beside?: boolean;
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

// What was pressed with the mouse or a finger keeps the focus, but not the keys: Space
// after a box was ticked goes on to the next step.
let pointed = false;
let held: EventTarget | null = null;
window.addEventListener("pointerdown", () => (pointed = true), true);
window.addEventListener("focusin", (e) => (held = pointed ? e.target : null), true);
window.addEventListener(
  "keydown",
  (e) => {
    pointed = false;
    if (e.key === "Tab") held = null;
  },
  true,
);

const wordless = ["checkbox", "radio", "button", "submit", "range", "color", "file"];

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !wordless.includes(target.type);
  return target.isContentEditable || ["TEXTAREA", "SELECT"].includes(target.tagName);
}

/** Whether a control keeps this key for itself. */
function isTaken(e: KeyboardEvent): boolean {
  const target = e.target instanceof HTMLElement ? e.target : null;
  if (!target) return false;
  if (target.closest("[role=slider], input[type=range]")) return e.key === " " || e.key.startsWith("Arrow");
  if (target === held) return false;
  if (e.key === " " || e.key === "Enter") return target.closest("button, a, summary, input") !== null;
  return e.key.startsWith("Arrow") && target.closest("[role=radiogroup], input[type=radio]") !== null;
}

/** A field for a number: letters that are shortcuts are never typed into it. */
const isNumberField = (e: EventTarget | null): e is HTMLInputElement =>
  e instanceof HTMLInputElement && e.dataset.unit !== undefined;
/** Shortcuts that hold while a view is shown. They rest while somebody types. */
export function useShortcuts(shortcuts: Shortcut[]) {
  useEffect(() => {
    const token = {};
    active.set(token, shortcuts);
    watchers.forEach((f) => f());
    const press = (e: KeyboardEvent) => {
      if (e.defaultPrevented || e.altKey || document.querySelector("[role=dialog]")) return;
      const ctrl = e.ctrlKey || e.metaKey;
      const hit = shortcuts.find((s) => s.key === e.key && (s.ctrl ?? false) === ctrl);
      if (!hit) return;
      if (isTyping(e.target)) {
        // In a number that has not been begun a letter is what it is everywhere else;
        // in one that has, it is nothing.
        if (ctrl || !isNumberField(e.target) || e.key.length > 1) return;
        const { value, selectionStart, selectionEnd } = e.target;
        const next = value.slice(0, selectionStart ?? 0) + e.key + value.slice(selectionEnd ?? 0);
        if (/\d/.test(value) && mayBecome(next, e.target.dataset.unit ?? "")) return;
        e.preventDefault();
        if (!hit.beside && (value !== "" || !e.target.dataset.quick)) return;
      } else if (isTaken(e)) return;
      e.preventDefault();
      hit.run();
    };
    window.addEventListener("keydown", press);
    return () => {
      active.delete(token);
      window.removeEventListener("keydown", press);
    };
  }, [shortcuts]);
}

/** Escape leaves a field, so that the keys work again. */
export function leaveFields(e: KeyboardEvent) {
  if (e.key === "Escape" && isTyping(e.target) && !document.querySelector("[role=dialog]")) {
    (e.target as HTMLElement).blur();
  }
}
