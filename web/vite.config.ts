import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

const ALONE = "src/**/*.alone.test.tsx";

/** Keeps the page itself on the device, so that a run reopens without the server; answers of the server are not kept. */
const onDevice = VitePWA({
  strategies: "generateSW",
  registerType: "autoUpdate",
  injectRegister: null,
  manifest: false,
  filename: "sw.js",
  workbox: {
    globPatterns: ["assets/**/*.{js,css,woff2}"],
    modifyURLPrefix: { "": "/static/" },
    maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
    navigateFallback: null,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    runtimeCaching: [
      {
        urlPattern: ({ request, url }) => request.mode === "navigate" && url.pathname.startsWith("/runs/"),
        handler: "NetworkFirst",
        options: {
          cacheName: "run-page",
          networkTimeoutSeconds: 4,
          // every run has the same page: one that was never opened here opens too
          plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve("/runs/") }],
        },
      },
    ],
  },
});

export default defineConfig(({ command }) => ({
  base: command === "build" ? "/static/" : "/",
  plugins: [react(), ...(command === "build" ? [onDevice] : [])],
  build: {
    manifest: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 1200,
  },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  // a busy machine types slowly: no test waits on a clock of its own
  test: {
    environment: "jsdom",
    setupFiles: ["./src/test-setup.ts"],
    globals: false,
    testTimeout: 30_000,
    // what is read once serves all files; those that put other modules in place of ours stand alone
    projects: [
      {
        extends: true,
        test: { name: "together", isolate: false, include: ["src/**/*.test.{ts,tsx}"], exclude: [ALONE] },
      },
      { extends: true, test: { name: "alone", include: [ALONE] } },
    ],
  },
}));
