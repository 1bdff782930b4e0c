import type { Lever } from "../../api/client";
import { knobValue, type Units } from "../../units";

/** A step of a lever in words, such as 1 mm or 0.5 m/s. */
export const stepWords = (l: Lever, units: Units) =>
  l.unit === "" ? `${l.step}` : knobValue(l.step, l.unit, units);
