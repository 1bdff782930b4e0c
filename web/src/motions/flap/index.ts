import type { Motion } from "../drawing";
import { OtherPapers } from "./OtherPapers";
import { BirdMat } from "./BirdMat";
import { SnapMat } from "./SnapMat";

const flap: Motion = {
  way: "flap",
  mats: { beat: BirdMat, snap: SnapMat },
  views: [{ value: "papers", label: "Other papers", View: OtherPapers }],
};

export default flap;
