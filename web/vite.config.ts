import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig(({ command }) => ({
  base: command === "build" ? "/static/" : "/",
  plugins: [react()],
  build: {
    manifest: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 1200,
  },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  // a busy machine types slowly: no test waits on a clock of its own
  test: { environment: "jsdom", setupFiles: ["./src/test-setup.ts"], globals: false, testTimeout: 30_000 },
}));
