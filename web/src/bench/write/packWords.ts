import type { PackCard } from "../../api/client";

/** A pack in a list: its title, for whom, in which language. */
export const packWords = (p: PackCard) =>
  `${p.title} (${p.kind}, ${p.to_age >= 99 ? `from ${p.from_age}` : `${p.from_age} to ${p.to_age}`}, ${p.speaks}${p.ships ? "" : ", own"})`;
