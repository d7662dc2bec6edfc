import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: "es2022", chunkSizeWarningLimit: 1400, assetsInlineLimit: 0 },
  test: { environment: "jsdom", setupFiles: ["src/test-setup.ts"], css: true },
});
