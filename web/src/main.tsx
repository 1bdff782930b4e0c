import "@fontsource-variable/archivo/standard.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { Mishap } from "./parts/Mishap";
import { fetchPlace } from "./places/places";
import "./index.css";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: false } },
});

fetchPlace(window.location.pathname, queries);

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
