import type { Prediction } from "../api/client";
import type { Conditions } from "../bench/conditions";

/** What the drawing of a way of moving is given. */
export interface MatProps {
  prediction: Prediction;
  how: Conditions;
  /** Readings that were measured, of the kind that counts, SI units. */
  measured?: number[];
  /** What the path is of. */
  name?: string;
}
