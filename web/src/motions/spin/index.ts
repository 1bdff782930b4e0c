import type { Motion } from "../drawing";
import { OtherWheels, TestGrid } from "./OtherWheels";
import { Strobe } from "./Strobe";
import { TokenFace, TokenMat } from "./TokenMat";
import { WheelMat } from "./WheelMat";
import { WhereToAim } from "./WhereToAim";

const spin: Motion = {
  way: "spin",
  mats: { token: TokenMat, wheel: WheelMat },
  faces: { token: TokenFace },
  views: [
    { value: "aim", label: "Where to aim", View: WhereToAim, of: ["spin", "hang"] },
    { value: "grid", label: "Four ways to try it", View: TestGrid, of: ["wheel"] },
    { value: "blades", label: "Other numbers of blades", View: OtherWheels, of: ["wheel"] },
    { value: "strobe", label: "Stroboscope", View: Strobe, of: ["wheel"] },
  ],
};

export default spin;
