import { useQuery } from "@tanstack/react-query";
import { question } from "../api/queries";

/** How another device comes in: address, code and the same as a square to be scanned. */
export function SharingBox() {
  const sharing = useQuery(question.sharing());
  const s = sharing.data;
  if (!s) return null;
  if (!s.on) {
    return (
      <p>
        Only this machine is answered. Start Tussock with <code>tussock serve --share</code> to let phones on
        the hall network in, each with a code of its own.
      </p>
    );
  }
  const rows = s.qr ?? [];
  const n = rows.length;
  const dark = rows.flatMap((row, y) => row.map((on, x) => (on ? `M${x} ${y}h1v1h-1z` : ""))).join("");
  return (
    <div className="space-y-2">
      <p>
        On the phone: <b>{s.url}</b>/join?code={s.code}, or scan the square.
      </p>
      <p>
        <span className="figure text-5xl tracking-widest">{s.code}</span>{" "}
        <span className="text-quiet">lets one device in; then there is another code.</span>
      </p>
      <svg
        role="img"
        aria-label={`Square to scan, for ${s.url ?? ""}/join?code=${s.code ?? ""}`}
        viewBox={`0 0 ${n} ${n}`}
        className="size-48 bg-white"
        shapeRendering="crispEdges"
      >
        <path d={dark} fill="#000" />
      </svg>
      <p className="text-sm text-quiet">
        Whoever is in can do all that you can. The network is not encrypted.
      </p>
    </div>
  );
}
