import { defineConfig } from "vite";

/** The part of the screens that the worker runs too, as one script for a bare JavaScript engine. */
export default defineConfig({
  publicDir: false,
  build: {
    target: "es2022",
    outDir: "dist/server",
    lib: { entry: "src/walk/server.ts", name: "walk", formats: ["iife"], fileName: () => "walk.js" },
  },
});
