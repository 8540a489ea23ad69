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
            { name: "kit", test: /node_modules\/(?!three\b|@react-three)/, minShareCount: 2 },
            { name: "common", test: /\/src\//, minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: { host: "127.0.0.1", port: 5173, strictPort: true, proxy: { "/api": "http://127.0.0.1:8000" } },
}));
