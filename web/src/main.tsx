import "@fontsource-variable/archivo/standard.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Problem } from "./api/client";
import { App } from "./App";
import { Mishap } from "./parts/Mishap";
import { fetchPlace } from "./places/places";
import { toast } from "./toast";
import "./index.css";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: false } },
});

fetchPlace(window.location.pathname, queries);

// What the server refuses, or does not answer, is said wherever nobody else does.
window.addEventListener("unhandledrejection", (e) => {
  if (!(e.reason instanceof Problem)) return;
  e.preventDefault();
  toast.error(e.reason.message);
});

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Mishap>
            <App />
          </Mishap>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
