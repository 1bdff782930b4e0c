import type { Motion } from "../drawing";
import { HopMat } from "./HopMat";

const hop: Motion = { way: "hop", mats: { leap: HopMat }, views: [] };

export default hop;
