import type { TokenDrawing } from "./types";
import { CurveChart } from "../CurveChart";

/** How the rate of a spin falls, with its band and the rate at which it stands no more. */
export function SpinChart({ token, at, words }: { token: TokenDrawing; at: number; words: string }) {
  const line = (ps: { t: number; rate: number }[]) => ps.map((p) => ({ x: p.t, y: p.rate }));
  const now = token.curve.findLast((c) => c.t <= at) ?? token.curve[0];
  const top = Math.max(...token.band.map((b) => b.hi));
  return (
    <CurveChart
      curve={line(token.curve)}
      band={token.band.map((b) => ({ x: b.t, lo: b.lo, hi: b.hi }))}
      ghosts={token.ghosts.map((g) => ({ name: g.name, curve: line(g.curve) }))}
      now={{ x: at, y: now?.rate ?? 0 }}
      xTitle="time, s"
      yTitle="turns a second"
      level={
        token.stands_at > 0 && token.stands_at < top
          ? { y: token.stands_at, words: "stands from here up" }
          : undefined
      }
      path={`predicted, the middle one of many spins, until ${token.ends}; the band holds eight of ten`}
      words={words}
    />
  );
}
