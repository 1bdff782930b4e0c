import type { Motion } from "../drawing";
import { FlightMat } from "./FlightMat";
import { TurnCauses } from "./TurnCauses";

const fly: Motion = {
  way: "fly",
  mats: { flight: FlightMat },
  views: [{ value: "turn", label: "Left and right", View: TurnCauses }],
};

export default fly;
