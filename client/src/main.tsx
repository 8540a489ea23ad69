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

import { Refused } from "./api/client";
import { router } from "./router";
import { theme } from "./theme";

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
const cache = createCache({ key: "css", prepend: true, ...(nonce ? { nonce } : {}) });
// asked again in a moment: others are being served, or one's own long reckonings
const AGAIN = new Set([429, 503]);
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => (error instanceof Refused ? AGAIN.has(error.status) && count < 5 : count < 2),
      refetchOnWindowFocus: false,
    },
  },
});
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
