import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig(({ command }) => ({
  base: command === "build" ? "/static/" : "/",
  plugins: [react()],
  // the entry is named here so that the built manifest has it even though Django renders the page
  build: {
    manifest: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    target: "es2022",
    // a few files rather than forty, each of which is a question to the server; the round's are apart
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // what a group names it takes with all that it imports: the round comes last, or it takes React
            { name: "kit", test: /node_modules\/(?!three\b|@react-three)/, minShareCount: 2, priority: 3 },
            { name: "common", test: /\/client\/src\/(?!drawing\/round)/, minShareCount: 2, priority: 2 },
            {
              name: "round",
              test: /node_modules\/|\/client\/src\/drawing\/round/,
              minShareCount: 2,
              priority: 1,
            },
          ],
        },
      },
    },
  },
  server: { host: "127.0.0.1", port: 5173, strictPort: true, proxy: { "/api": "http://127.0.0.1:8000" } },
}));
