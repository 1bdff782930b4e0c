import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { toast } from "../toast";
import { api, type Sharing } from "../api/client";
import { know, question } from "../api/queries";
import { Button } from "./controls";

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
        Whoever is in can fold along, log trials and move knobs. Backups, settings, codes and this list belong
        to this machine. The network is not encrypted.
      </p>
      <Devices devices={s.devices} />
    </div>
  );
}

/** Who is in, and how to put a device out. */
function Devices({ devices }: { devices: Sharing["devices"] }) {
  const queries = useQueryClient();
  const [asked, setAsked] = useState<number | null>(null);
  const putOut = async (id: number) => {
    try {
      know.sharing(queries, await api.putOut(id));
    } catch (e) {
      toast.error(e instanceof Error ? e.message : "It could not be put out.");
    }
    setAsked(null);
  };
  if (devices.length === 0) return <p>No device is in yet.</p>;
  return (
    <div>
      <h3 className="mt-3 text-lg">
        {devices.length === 1 ? "One device is" : `${devices.length} devices are`} in
      </h3>
      <ul>
        {devices.map((d) => (
          <li key={d.id} className="flex flex-wrap items-center gap-x-3 border-t border-line py-1.5">
            <span className="grow">
              <b>{d.name}</b>{" "}
              <span className="text-sm text-quiet">
                {d.address}, last seen{" "}
                {new Date(d.seen_at).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}
              </span>
            </span>
            {asked === d.id ? (
              <>
                <Button weight="main" onClick={() => void putOut(d.id)}>
                  Put {d.name} out
                </Button>
                <Button onClick={() => setAsked(null)}>Leave it in</Button>
              </>
            ) : (
              <Button aria-label={`Put ${d.name} out`} onClick={() => setAsked(d.id)}>
                Put out
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
