import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";
import { serviceWorker } from "./service-worker.plugin.ts";

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    serviceWorker({ page: "make.html", worker: "src/making/service-worker.ts" }),
  ],
  build: {
    target: "es2022",
    chunkSizeWarningLimit: 1400,
    assetsInlineLimit: 0,
    rolldownOptions: { input: ["index.html", "make.html"] },
  },
  test: { environment: "jsdom", setupFiles: ["src/test-setup.ts"], css: true },
});
