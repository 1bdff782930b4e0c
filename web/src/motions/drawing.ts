import type { ComponentType } from "react";
import type { Clinic, Prediction, Setup, Written } from "../api/client";
import type { FaceColours } from "../parts/PaperPicture";
import type { Conditions } from "../parts/conditions";

/** What the drawing of a way of moving is given. */
export interface MatProps {
  prediction: Prediction;
  how: Conditions;
  /** Readings that were measured, of the kind that counts, SI units. */
  measured?: number[];
  /** What the path is of. */
  name?: string;
  /** The colours of the paper. */
  colours: FaceColours;
  /** The pattern and the set-up that it is of, where these can be asked about. */
  of?: { pattern: string; setup: Setup; build: number };
  /** Takes what is written on the toy from now on. */
  onWrite?: (written: Written) => void;
  /** Takes what was measured on the picture of the finished toy, mm and degrees, by field. */
  onMeasured?: (measured: Record<string, number>) => void;
}

/** The toy as it lies under a clock on which directions are tapped. */
export interface FaceProps {
  prediction: Prediction;
  colours: FaceColours;
}

/** A toy that is played on the screen. */
export interface PlayProps {
  prediction: Prediction;
  colours: FaceColours;
  of: { pattern: string; setup: Setup; build: number };
}

/** What a way of moving draws by itself; each is the default export of its folder. */
export interface Motion {
  /** The word of the way in patterns. */
  way: string;
  /** What draws predictions, by the kind of drawing that they come with. */
  mats: Record<string, ComponentType<MatProps>>;
  /** What lies under a clock, by the kind of drawing; nothing where it is left out. */
  faces?: Record<string, ComponentType<FaceProps>>;
  /** What plays toys on the screen, by the kind of drawing. */
  plays?: Record<string, ComponentType<PlayProps>>;
  /** Further views while it is tuned. */
  views: {
    value: string;
    label: string;
    View: ComponentType<{ clinic: Clinic }>;
    /** The names of the ways that it is for, of those that share the word; all when left out. */
    of?: string[];
  }[];
}
