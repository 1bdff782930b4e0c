import type { Moving, Prediction, TrialInput } from "../api/client";
import { number, recordValue, type Units } from "../units";

/** The reading that counts in words, such as " of 7.4 m". */
export function sizeOf(t: TrialInput, way: Moving, units: Units): string {
  const kind = way.kinds.find((k) => k.name === t.kind) ?? way.kinds[0];
  const record = way.records.find((r) => r.id === kind?.record);
  const v = record && t.read?.[record.id];
  return v === undefined ? "" : ` of ${recordValue(v, record?.unit ?? "", units)}`;
}

/** How the scattered trials go, in shares. */
export const shares = (p: Prediction) =>
  p.modes.map((m) => `${m.mode} ${number(100 * m.share, 0)} %`).join(", ");
