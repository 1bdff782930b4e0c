import type { components } from "../../api/schema";

export type FlightDrawing = components["schemas"]["FlightDrawing"];
export type Sample = components["schemas"]["FlightSpot"];
export type TurnTold = components["schemas"]["TurnTold"];
