import { defineConfig } from "vite";

/** What lets students read their page without a connection: one script at an address of its own. */
export default defineConfig({
  publicDir: false,
  build: {
    target: "es2022",
    outDir: "dist/worker",
    lib: {
      entry: "src/offline/worker.ts",
      name: "offline",
      formats: ["iife"],
      fileName: () => "student-worker.js",
    },
  },
});
