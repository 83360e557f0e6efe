import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { basename, join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** Writes a brotli and a gzip twin beside every file that text compression helps; the server picks one. */
function precompressed(): Plugin {
  return {
    name: "precompressed",
    apply: "build",
    writeBundle(options) {
      const folder = options.dir ?? "dist";
      for (const name of readdirSync(folder, { recursive: true, encoding: "utf8" })) {
        if (/\.(js|css|svg|html)$/.test(name)) {
          const content = readFileSync(join(folder, name));
          writeFileSync(join(folder, `${name}.br`), brotliCompressSync(content));
          writeFileSync(join(folder, `${name}.gz`), gzipSync(content, { level: 9 }));
        }
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), precompressed()],
  css: {
    modules: {
      // `rail_hung` is `.hung` of rail.module.css: who reads the page sees where its style stands, and so can a journey.
      generateScopedName: (name, path) => `${basename(path.split("?")[0] ?? path, ".module.css")}_${name}`,
    },
  },
  build: { target: "es2022", assetsInlineLimit: 0, chunkSizeWarningLimit: 1200 },
  server: {
    host: "127.0.0.1",
    proxy: { "/api": process.env["VEMBLE_API"] ?? "http://127.0.0.1:8080" },
  },
});
