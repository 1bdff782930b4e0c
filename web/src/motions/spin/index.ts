import type { Motion } from "../drawing";
import { WhereToAim } from "./WhereToAim";
import { TokenFace, TokenMat } from "./TokenMat";

const spin: Motion = {
  way: "spin",
  mats: { token: TokenMat },
  faces: { token: TokenFace },
  views: [{ value: "aim", label: "Where to aim", View: WhereToAim }],
};

export default spin;
