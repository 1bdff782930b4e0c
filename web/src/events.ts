import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { toast } from "./toast";
import type { HallEvent } from "./api/client";
import { me } from "./api/page";
import { changed } from "./api/queries";

const listeners = new Set<(e: HallEvent) => void>();

/** Hears what others do. */
export function onEvent(f: (e: HallEvent) => void) {
  listeners.add(f);
  return () => {
    listeners.delete(f);
  };
}

function heard(e: HallEvent, queries: QueryClient) {
  if (e.by === me) return;
  if (e.kind === "changed" && e.build) {
    void changed.build(queries, e.build);
    void changed.builds(queries);
    void changed.trials(queries);
  }
  if (e.kind === "all") {
    void changed.everything(queries);
    toast("Everything here was replaced by a backup. What this page shows may be gone.", {
      duration: Infinity,
      action: { label: "Load it anew", onClick: () => window.location.reload() },
    });
  }
}

/** One line to the server for the whole page: a browser has six to a host. */
export function useEvents() {
  const queries = useQueryClient();
  useEffect(() => {
    let source: EventSource | undefined;
    let missed = false;
    const open = () => {
      source = new EventSource("/api/v1/events");
      source.onmessage = (e: MessageEvent<string>) => {
        const event = JSON.parse(e.data) as HallEvent;
        heard(event, queries);
        listeners.forEach((f) => f(event));
      };
      // What happened while the line was broken was not heard.
      source.onerror = () => (missed = true);
      source.onopen = () => {
        if (missed) void changed.everything(queries);
        missed = false;
      };
    };
    // A page that is left may be kept for the way back, and its line would stay taken.
    const leave = () => source?.close();
    const again = (e: PageTransitionEvent) => {
      if (!e.persisted) return;
      missed = true;
      open();
    };
    open();
    window.addEventListener("pagehide", leave);
    window.addEventListener("pageshow", again);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("pageshow", again);
      leave();
    };
  }, [queries]);
}
