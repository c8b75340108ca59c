/// <reference types="vitest/config" />
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  build: { target: "es2022", chunkSizeWarningLimit: 1000 },
  server: { proxy: { "/api": "http://127.0.0.1:8470" } },
  test: {
    environment: "jsdom",
    setupFiles: "src/test-setup.ts",
    css: false,
    // one page for all files: most of the time of a run went into making a new one for each
    isolate: false,
    // a busy machine is slow, not wrong
    testTimeout: 30_000,
  },
});
