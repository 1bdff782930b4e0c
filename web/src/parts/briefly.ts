import type { Step } from "../api/client";

/** A step in few words, for those who know the folds: its name and what goes where. */
export const inBrief = (s: Step) => (s.from ? `${s.title}: ${s.from} to ${s.to}` : s.title || s.text);
