import type { ComponentType } from "react";
import type { Clinic, Prediction } from "../api/client";
import type { MatProps } from "./drawing";
import { FlightMat } from "./FlightMat";
import { HopMat } from "./HopMat";
import { TurnCauses } from "./TurnCauses";

/** What a way of moving draws by itself. */
interface Drawing {
  Mat: ComponentType<MatProps>;
  /** Further views while it is tuned. */
  views: { value: string; label: string; View: ComponentType<{ clinic: Clinic }> }[];
}

const drawings: Record<keyof Prediction["drawing"], Drawing> = {
  fly: { Mat: FlightMat, views: [{ value: "turn", label: "Left and right", View: TurnCauses }] },
  hop: { Mat: HopMat, views: [] },
};

const nothing: Drawing = { Mat: () => null, views: [] };

/** The drawing of a prediction: that of the model it comes from. */
export function drawingOf(p: Prediction): Drawing {
  const [kind] = Object.keys(p.drawing) as (keyof Prediction["drawing"])[];
  return kind ? drawings[kind] : nothing;
}

/** The views that a way of moving adds to those that all have. */
export const viewsOf = (moves: string) => (moves in drawings ? drawings[moves as "fly"].views : []);
