import { readFileSync } from "node:fs";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import license from "rollup-plugin-license";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";
import { serviceWorker } from "./service-worker.plugin.ts";

const FONTS = ["atkinson-hyperlegible-next", "fraunces"];

/** The licence of each typeface lies beside the typeface. */
const fontLicences: Plugin = {
  name: "spirrel-font-licences",
  generateBundle() {
    for (const font of FONTS)
      this.emitFile({
        type: "asset",
        fileName: `${font}-licence.txt`,
        source: readFileSync(`node_modules/@fontsource-variable/${font}/LICENSE`, "utf-8"),
      });
  },
};

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    // Whoever gets the built scripts gets the notices that their licences ask for.
    fontLicences,
    license({ thirdParty: { output: "dist/third-party-notices.txt", includeSelf: false } }),
    serviceWorker({ page: "make.html", worker: "src/making/service-worker.ts" }),
  ],
  build: {
    target: "es2022",
    chunkSizeWarningLimit: 1400,
    assetsInlineLimit: 0,
    rolldownOptions: { input: ["index.html", "make.html"] },
  },
  test: { environment: "jsdom", setupFiles: ["src/test-setup.ts"], css: true, testTimeout: 20_000 },
});
