import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: { outDir: "../src/zarabanda/web/static", emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 1000 },
  server: { proxy: { "/api": "http://127.0.0.1:8765", "/live": { target: "ws://127.0.0.1:8765", ws: true } } },
  test: { environment: "jsdom", setupFiles: ["src/testing/setup.ts"], testTimeout: 60_000, unstubGlobals: false },
});
