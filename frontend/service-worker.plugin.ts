/** Builds the service worker of the making page once the page is built, with the list of all that the page needs. */
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { build, type Plugin, type ResolvedConfig, type Rollup } from "vite";

export type Kept = { url: string; revision: string | null };

/** Files that a page loads before it is asked for anything: its script, what that imports, and their styles and fonts. */
export function neededBy(page: string, bundle: Rollup.OutputBundle): string[] {
  const found = new Set<string>();
  const chunks = Object.values(bundle).filter((f) => f.type === "chunk");
  const take = (name: string) => {
    const chunk = chunks.find((c) => c.fileName === name);
    if (!chunk || found.has(name)) return;
    found.add(name);
    for (const style of chunk.viteMetadata?.importedCss ?? []) found.add(style);
    for (const asset of chunk.viteMetadata?.importedAssets ?? []) found.add(asset);
    for (const other of [...chunk.imports, ...chunk.dynamicImports]) take(other);
  };
  for (const chunk of chunks)
    if (chunk.isEntry && chunk.facadeModuleId?.endsWith(`/${page}`)) take(chunk.fileName);
  for (const name of [...found].filter((f) => f.endsWith(".css"))) {
    const style = bundle[name];
    const text = style?.type === "asset" ? String(style.source) : "";
    for (const [, font] of text.matchAll(/url\(\/?(assets\/[^)"']+latin-[^)"']+\.woff2)\)/g))
      if (font) found.add(font);
  }
  return [...found].sort();
}

export function serviceWorker({ page, worker }: { page: string; worker: string }): Plugin {
  let config: ResolvedConfig;
  let needed: string[] = [];
  return {
    name: "spirrel-service-worker",
    apply: "build",
    configResolved(found) {
      config = found;
    },
    writeBundle(_, bundle) {
      needed = neededBy(page, bundle);
    },
    async closeBundle() {
      const out = resolve(config.root, config.build.outDir);
      const revision = (name: string) =>
        createHash("sha256")
          .update(readFileSync(resolve(out, name)))
          .digest("hex")
          .slice(0, 16);
      const kept: Kept[] = [
        ...[page, "mark.svg", "make.webmanifest"].map((name) => ({
          url: `/${name}`,
          revision: revision(name),
        })),
        ...needed.map((name) => ({ url: `/${name}`, revision: null })),
      ];
      await build({
        configFile: false,
        root: config.root,
        logLevel: "warn",
        publicDir: false,
        define: { __KEPT__: JSON.stringify(kept), "process.env.NODE_ENV": '"production"' },
        build: {
          outDir: out,
          emptyOutDir: false,
          target: "es2022",
          lib: {
            entry: resolve(config.root, worker),
            formats: ["iife"],
            name: "spirrel",
            fileName: () => "make-sw.js",
          },
        },
      });
    },
  };
}
