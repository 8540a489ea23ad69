import "@fontsource/barlow/latin-400.css";
import "@fontsource/barlow/latin-600.css";
import "@fontsource/barlow-semi-condensed/latin-500.css";
import "./app.css";

import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";

import { onlyBusy, Refused } from "./api/client";
import { router } from "./router";
import { theme } from "./theme";

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
const cache = createCache({ key: "css", prepend: true, ...(nonce ? { nonce } : {}) });
const BUSY_MS = 500;
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => count < (onlyBusy(error) ? 20 : error instanceof Refused ? 0 : 2),
      // whoever had no turn asks again soon: the server lets it wait, too
      retryDelay: (count, error) => (onlyBusy(error) ? BUSY_MS : 1000 * 2 ** count),
      refetchOnWindowFocus: false,
      networkMode: "always", // without a line the service worker answers with what was said last
    },
  },
});
// what was opened is there without a line, too; a page that came by plain HTTP keeps nothing
if ("serviceWorker" in navigator) void navigator.serviceWorker.register("/sw.js").catch(() => undefined);
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <CacheProvider value={cache}>
        <ThemeProvider theme={theme} defaultMode="system">
          <QueryClientProvider client={queries}>
            <RouterProvider router={router} />
          </QueryClientProvider>
        </ThemeProvider>
      </CacheProvider>
    </StrictMode>,
  );
}
