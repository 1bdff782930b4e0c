import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, speak, type Settings } from "./api/client";
import { keepOwnSettings } from "./api/own";
import { question, changed, know } from "./api/queries";
import { noteUndo } from "./undo";
import type { Units } from "./units";

const first: Settings = { units: "mm", hand: "right", theme: "auto", page: "auto" };

/** A person's choices and how to change them; changes show at once. */
export function useSettings() {
  const queries = useQueryClient();
  const { data } = useQuery(question.settings());
  const guest = useGuest();
  const change = useMutation({
    mutationFn: (part: Partial<Settings>) => {
      const next = { ...(data ?? first), ...part };
      if (!guest) return api.setSettings(next);
      keepOwnSettings(next);
      return Promise.resolve(next);
    },
    onMutate: (part) => {
      if (data) noteUndo("the settings", { do: "settings", settings: data, own: guest });
      if (part.units) {
        speak(part.units);
        // Sentences that are on the page were told in the units before.
        void changed.units(queries);
      }
      know.settings(queries, (old) => ({ ...(old ?? first), ...part }));
    },
    onError: () => changed.settings(queries),
  });
  return { settings: data ?? first, change: change.mutate };
}

/** Whether this is a device of the hall, not the machine where Tussock runs. */
export const useGuest = () => useQuery(question.me()).data?.guest ?? false;

export const useUnits = (): Units => useSettings().settings.units;

/** Puts the theme on the page; "auto" follows the machine. */
export function useTheme(theme: Settings["theme"]) {
  useEffect(() => {
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    const apply = () => {
      document.documentElement.dataset.theme =
        theme === "dark" || (theme === "auto" && dark.matches) ? "dark" : "light";
    };
    apply();
    dark.addEventListener("change", apply);
    return () => dark.removeEventListener("change", apply);
  }, [theme]);
}
