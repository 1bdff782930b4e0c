import type { ComponentType } from "react";
import type { Clinic, Prediction } from "../api/client";
import type { Conditions } from "../parts/conditions";

/** What the drawing of a way of moving is given. */
export interface MatProps {
  prediction: Prediction;
  how: Conditions;
  /** Readings that were measured, of the kind that counts, SI units. */
  measured?: number[];
  /** What the path is of. */
  name?: string;
}

/** What a way of moving draws by itself; each is the default export of its folder. */
export interface Motion {
  /** The word of the way in patterns. */
  way: string;
  /** What draws predictions, by the kind of drawing that they come with. */
  mats: Record<string, ComponentType<MatProps>>;
  /** Further views while it is tuned. */
  views: { value: string; label: string; View: ComponentType<{ clinic: Clinic }> }[];
}
