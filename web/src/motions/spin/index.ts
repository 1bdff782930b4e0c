import type { Motion } from "../drawing";
import { TokenFace, TokenMat } from "./TokenMat";

const spin: Motion = { way: "spin", mats: { token: TokenMat }, faces: { token: TokenFace }, views: [] };

export default spin;
