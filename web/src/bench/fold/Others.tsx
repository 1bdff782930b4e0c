import { Link } from "react-router";
import { useOthers } from "./useOthers";

/** Where another device is on the same build. */
export function Others({ build, step, way }: { build: number; step: number; way: "fold" | "follow" }) {
  const other = useOthers(build, step);
  if (other === undefined || other === step) return null;
  return (
    <p role="status" className="border-2 border-tide px-2 py-1 text-sm">
      Another device is at step {other}.{" "}
      <Link className="underline" to={`/bench/${build}/${way}/${other}`}>
        Go there
      </Link>
    </p>
  );
}
