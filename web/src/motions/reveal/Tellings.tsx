import type { Clinic } from "../../api/client";
import { number } from "../../units";
import { HeadRow } from "../HeadRow";
import type { TellerTold } from "./types";

/** What came up in the plays that were logged, beside the chances. */
export function Tellings({ clinic }: { clinic: Clinic }) {
  const told = clinic.told?.data as TellerTold | undefined;
  if (!told) return <p>Nothing to tell yet.</p>;
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What came up">
      <table className="w-full text-left">
        <caption className="title mb-1 text-left text-lg">
          What came up in {told.plays} {told.plays === 1 ? "play" : "plays"} at this tweak
        </caption>
        <HeadRow words={["Number", "Message"]} numbers={["Came up", "By chance", "Eight of ten times"]} />
        <tbody>
          {told.came.map((r) => (
            <tr key={r.half} className="border-t border-line">
              <th scope="row" className="py-1">
                {r.number || r.half}
              </th>
              <td>{r.message || "–"}</td>
              <td className="text-right font-bold text-tide">{r.count}</td>
              <td className="text-right text-lavender">{number(r.want, 1)}</td>
              <td className="text-right">
                {r.lo} to {r.hi}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2">{told.says}</p>
    </div>
  );
}
