import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "../src/zarabanda/web/static",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1000,
  },
  server: {
    proxy: { "/api": "http://127.0.0.1:8765", "/live": { target: "ws://127.0.0.1:8765", ws: true } },
  },
  test: {
    testTimeout: 60_000, // a busy machine
    pool: "threads",
    projects: [
      {
        extends: true,
        test: {
          name: "helpers",
          include: ["src/**/*.test.ts"],
          exclude: ["src/api/queries.test.ts"],
          environment: "node",
          isolate: false,
        },
      },
      // it looks at what a module remembers
      {
        extends: true,
        test: { name: "queries", include: ["src/api/queries.test.ts"], environment: "jsdom" },
      },
      {
        extends: true,
        test: {
          name: "page",
          include: ["src/**/*.test.tsx"],
          environment: "jsdom",
          isolate: false, // the page is loaded once; every test begins with its own state
          setupFiles: ["src/testing/setup.ts"],
        },
      },
    ],
  },
});
