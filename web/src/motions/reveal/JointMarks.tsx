import type { Picture } from "../../api/client";
import type { RingState } from "./types";

/**
 * Marks over a picture of a ring: a triangle where something opens, a square where nothing
 * does. It lies over the picture, in the same frame.
 */
export function JointMarks({
  picture,
  joints,
  words,
  onJoint,
}: {
  picture: Picture;
  joints: RingState["joints"];
  words: [string, string];
  onJoint?: (i: number) => void;
}) {
  const [x = 0, y = 0, w = 1, h = 1] = picture.view;
  const size = Math.max(w, h);
  const pad = size * 0.07;
  return (
    <svg
      viewBox={[x - pad, y - pad, w + 2 * pad, h + 2 * pad].join(" ")}
      preserveAspectRatio="xMidYMid meet"
      className="pointer-events-none absolute inset-0 h-full w-full"
      aria-hidden
    >
      {joints.map((j, i) => {
        const [jx = 0, jy = 0] = j.at;
        const r = size * 0.035;
        return (
          <g
            key={i}
            transform={`translate(${jx} ${jy})`}
            className={onJoint && j.opens ? "pointer-events-auto cursor-pointer" : ""}
            onClick={onJoint && j.opens ? () => onJoint(i) : undefined}
          >
            <title>{j.opens ? words[0] : words[1]}</title>
            {j.opens ? (
              <path
                d={`M0 ${-r}L${r} ${r * 0.8}L${-r} ${r * 0.8}Z`}
                fill="#ff6b2c"
                stroke="#10302f"
                strokeWidth={size * 0.006}
              />
            ) : (
              <rect
                x={-r * 0.6}
                y={-r * 0.6}
                width={r * 1.2}
                height={r * 1.2}
                fill="#b7c7c2"
                stroke="#10302f"
                strokeWidth={size * 0.006}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
