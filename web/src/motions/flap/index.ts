import type { Motion } from "../drawing";
import { BirdMat } from "./BirdMat";
import { SnapMat } from "./SnapMat";

const flap: Motion = { way: "flap", mats: { beat: BirdMat, snap: SnapMat }, views: [] };

export default flap;
