import type { Moving, Remedy } from "../../api/client";
import { useUnits } from "../../settings";
import { number, smallLength } from "../../units";

/** An edge before and after a bend, from its end, in true size beside marks of a ruler. */
export function BendPicture({ bend, way }: { bend: NonNullable<Remedy["bend"]>; way: Moving }) {
  const units = useUnits();
  const at = (deg: number): [number, number] => {
    const a = (deg * Math.PI) / 180;
    return [30 + bend.depth_mm * Math.cos(a), 22 - bend.depth_mm * Math.sin(a)];
  };
  const [x0, y0] = at(bend.from_deg);
  const [x1, y1] = at(bend.to_deg);
  const rise = Math.abs(22 - y1 - (22 - y0));
  const words = `${bend.edge}: from ${number(bend.from_deg, 0)}° to ${number(bend.to_deg, 0)}°, ${smallLength(rise, units)} at the end of ${smallLength(bend.depth_mm, units)}`;
  const ruler = Math.max(30 + bend.depth_mm + 2, 42);
  return (
    <figure className="m-0">
      <svg
        viewBox="0 0 76 34"
        role="img"
        aria-label={words}
        className="max-w-full border border-line bg-panel"
        style={{ width: "76mm", height: "34mm" }}
        data-bend=""
      >
        <path d="M2 22H30" stroke="var(--ink)" strokeWidth="0.8" />
        <path
          d={`M30 22L${x0} ${y0}`}
          stroke="var(--quiet)"
          strokeWidth="0.6"
          strokeDasharray="1.6 1.2"
          fill="none"
        />
        <path d={`M30 22L${x1} ${y1}`} stroke="var(--lavender)" strokeWidth="0.9" fill="none" />
        <circle cx={30} cy={22} r={0.9} fill="var(--ink)" />
        {Array.from({ length: 17 }, (_, i) => i - 4).map((k) => (
          <g key={k}>
            <path d={`M${ruler} ${22 - k}h${k % 5 === 0 ? 4 : 2}`} stroke="var(--ink)" strokeWidth="0.25" />
            {k % 5 === 0 && (
              <text x={ruler + 5} y={23 - k} fontSize="3" fill="var(--ink)">
                {k} mm
              </text>
            )}
          </g>
        ))}
        <text x={3} y={20.5} fontSize="3" fill="var(--quiet)">
          wing or keel
        </text>
        <text x={3} y={30.5} fontSize="3" fill="var(--ink)">
          hinge at the dot; dashed is now
        </text>
      </svg>
      <figcaption className="mt-1 text-sm text-quiet">
        {words}. In true size at 100 % of the page.{" "}
        {way.asked?.card_name && (
          <a
            className="underline underline-offset-4"
            href={`/api/v1/moves/${way.name}/card?units=${units}&page=${units === "in" ? "letter" : "a4"}&depth_mm=${bend.depth_mm}`}
            target="_blank"
            rel="noreferrer"
          >
            Print the {way.asked.card_name}
          </a>
        )}{" "}
        to hold beside the edge.
      </figcaption>
    </figure>
  );
}
