import { defineConfig } from "vite";

/** The card that goes along in one file: its script and its style, to be written into a page. */
export default defineConfig({
  publicDir: false,
  build: {
    target: "es2022",
    outDir: "dist/pocket",
    emptyOutDir: true,
    lib: {
      entry: "src/pocket/main.ts",
      name: "pocket",
      formats: ["iife"],
      fileName: () => "card.js",
      cssFileName: "card",
    },
  },
});
