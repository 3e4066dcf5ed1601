/// <reference types="vitest/config" />
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  build: { outDir: "../src/nuntius/web/static", emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { proxy: { "/api": "http://127.0.0.1:8750" } },
  test: { include: ["src/**/*.spec.{ts,tsx}"], testTimeout: 30_000 }, // for a machine that is busy
});
