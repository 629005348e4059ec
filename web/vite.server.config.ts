import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** The part of the screens that the worker runs too, as one script for a bare JavaScript engine. */
export default defineConfig({
  plugins: [react()],
  define: { "process.env.NODE_ENV": '"production"' },
  publicDir: false,
  build: {
    target: "es2022",
    outDir: "dist/server",
    lib: { entry: "src/walk/server.ts", name: "walk", formats: ["iife"], fileName: () => "walk.js" },
  },
});
