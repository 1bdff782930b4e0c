import type { Motion } from "../drawing";
import { Papers } from "./Papers";
import { PlayRing } from "./PlayRing";
import { PlayTeller } from "./PlayTeller";
import { RingMat } from "./RingMat";
import { Tellings } from "./Tellings";
import { TellerMat } from "./TellerMat";

const reveal: Motion = {
  way: "reveal",
  mats: { teller: TellerMat, ring: RingMat },
  plays: { teller: PlayTeller, ring: PlayRing },
  views: [
    { value: "tally", label: "What came up", View: Tellings, of: ["tell"] },
    { value: "papers", label: "Papers compared", View: Papers, of: ["hexaflex"] },
  ],
};

export default reveal;
