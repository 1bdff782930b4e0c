import { Suspense, useEffect, useMemo, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { Link, NavLink, Route, Routes, useLocation, useNavigate } from "react-router";
import { useEvents } from "./events";
import { leaveFields, useShortcuts } from "./keys";
import {
  Bench,
  Bin,
  fetchTheRest,
  NotKnown,
  Packs,
  Palette,
  Papers,
  SettingsPlace,
  ShortcutList,
  Start,
  Study,
  Toaster,
} from "./places/places";
import { Shelf } from "./places/Shelf";
import { useSettings, useTheme } from "./settings";
import { undoFor, undoLast } from "./undo";
import { Main } from "./parts/Main";

export function App() {
  const { settings, change } = useSettings();
  useTheme(settings.theme);
  useEvents();
  useEffect(fetchTheRest, []);
  const queries = useQueryClient();
  useEffect(() => {
    undoFor(queries);
    window.addEventListener("keydown", leaveFields);
    return () => window.removeEventListener("keydown", leaveFields);
  }, [queries]);
  // What covers the whole screen leaves nothing beneath it to go to.
  const covered = ["follow", "play"].includes(useLocation().pathname.split("/")[3] ?? "");
  const navigate = useNavigate();
  const [shown, setShown] = useState<"keys" | "palette" | null>(null);
  const swap = settings.units === "mm" ? "in" : "mm";
  useShortcuts(
    useMemo(
      () => [
        { key: "?", label: "Show the keys", run: () => setShown("keys") },
        { key: "/", label: "Find a command, build or pattern", run: () => setShown("palette") },
        { key: "s", label: "Go to the shelf", run: () => void navigate("/") },
        { key: "m", label: "Switch mm and inch", run: () => change({ units: swap }) },
        { key: "u", label: "Undo", run: undoLast },
        { key: "z", ctrl: true, label: "Undo", run: undoLast },
      ],
      [navigate, change, swap],
    ),
  );
  const place = ({ isActive }: { isActive: boolean }) =>
    `flex min-h-11 items-center border-b-3 px-1 sm:px-2 ${isActive ? "border-[#4fb8b0]" : "border-transparent"}`;
  return (
    <div className="flex min-h-dvh flex-col">
      <a
        href="#main"
        className="sr-only bg-panel px-4 py-2 text-ink focus:not-sr-only focus:absolute focus:z-50"
      >
        Skip to the work
      </a>
      <header
        inert={covered}
        className="on-bar flex flex-wrap items-center gap-x-2 bg-bar px-3 text-on-bar max-sm:text-[0.95rem] sm:gap-5 sm:px-5 print:hidden"
      >
        <Link to="/" className="title text-lg sm:text-xl" style={{ fontStretch: "115%" }}>
          Tussock
        </Link>
        <nav
          aria-label="Places"
          className="flex grow gap-1 max-[25rem]:order-last max-[25rem]:basis-full sm:gap-4"
        >
          <NavLink to="/" end className={place}>
            Shelf
          </NavLink>
          <NavLink to="/papers" className={place}>
            Papers
          </NavLink>
          <NavLink to="/packs" className={place}>
            Packs
          </NavLink>
          <NavLink to="/settings" className={place}>
            Settings
          </NavLink>
          <NavLink to="/bin" className={place}>
            Bin
          </NavLink>
        </nav>
        <button
          type="button"
          className="min-h-11 px-1 whitespace-nowrap"
          onClick={() => change({ units: swap })}
        >
          <span className={settings.units === "mm" ? "font-bold underline underline-offset-4" : ""}>mm</span>
          {" / "}
          <span className={settings.units === "in" ? "font-bold underline underline-offset-4" : ""}>
            in<span className="max-sm:sr-only">ch</span>
          </span>
          <span className="sr-only">, now {settings.units}</span>
        </button>
        <button type="button" className="min-h-11 px-1 max-sm:order-2" onClick={() => setShown("palette")}>
          <b className="max-sm:hidden">/</b> find
        </button>
        <button type="button" className="hidden min-h-11 px-1 sm:block" onClick={() => setShown("keys")}>
          <b>?</b> keys
        </button>
      </header>
      <Suspense fallback={<main id="main" className="grow" aria-busy="true" />}>
        <Routes>
          <Route path="/" element={<Shelf />} />
          <Route path="/start/:pattern" element={<Start />} />
          <Route path="/bench/:build" element={<Bench />} />
          <Route path="/bench/:build/:stretch" element={<Bench />} />
          <Route path="/bench/:build/:stretch/:step" element={<Bench />} />
          <Route path="/papers" element={<Papers />} />
          <Route path="/papers/:tool" element={<Papers />} />
          <Route path="/packs" element={<Packs />} />
          <Route path="/packs/:pack" element={<Packs />} />
          <Route path="/study/:pattern" element={<Study />} />
          <Route path="/study/:pattern/:step" element={<Study />} />
          <Route path="/not-known/:moves" element={<NotKnown />} />
          <Route path="/settings" element={<SettingsPlace />} />
          <Route path="/bin" element={<Bin />} />
          <Route path="*" element={<Lost />} />
        </Routes>
      </Suspense>
      <Suspense>
        {shown === "keys" && <ShortcutList open onClose={() => setShown(null)} />}
        {shown === "palette" && <Palette open onClose={() => setShown(null)} />}
      </Suspense>
      <Suspense>
        <Toaster
          position="bottom-left"
          toastOptions={{
            unstyled: false,
            style: {
              borderRadius: 0,
              border: "2px solid var(--ink)",
              background: "var(--panel)",
              color: "var(--ink)",
              fontFamily: "inherit",
              fontSize: "1rem",
            },
          }}
        />
      </Suspense>
    </div>
  );
}

function Lost() {
  return (
    <Main title="Nothing here" className="p-8">
      <h1 className="text-3xl">There is nothing at this address.</h1>
      <p className="mt-4">
        <Link to="/" className="underline">
          Go to the shelf
        </Link>
      </p>
    </Main>
  );
}
