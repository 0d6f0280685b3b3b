/// <reference types="vitest/config" />
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "/static/",
  plugins: [react()],
  build: { target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  test: {
    include: ["src/**/*.test.{ts,tsx}"],
    setupFiles: ["src/testing/setup.ts"],
    testTimeout: 20_000,
    pool: "threads",
    maxWorkers: "100%",
  },
});
