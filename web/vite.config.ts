import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const server = `http://127.0.0.1:${process.env.UMBER_PEBBLE_PORT ?? "8722"}`;

interface Modules {
  getModuleInfo: (id: string) => { importedIds: readonly string[] } | null;
}

let start: Set<string> | undefined;
/** All that the first page needs before any of its views: what its entry imports, and what that imports. */
function atStart(modules: Modules): Set<string> {
  if (start) return start;
  const entry = fileURLToPath(new URL("src/main.tsx", import.meta.url));
  start = new Set([entry]);
  for (const id of start) for (const next of modules.getModuleInfo(id)?.importedIds ?? []) start.add(next);
  return start;
}

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    // beside the server, so that it goes with the package
    outDir: "../src/umber_pebble/web_dist",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    // what the service worker brings in
    manifest: "files.json",
    rollupOptions: {
      input: { index: "index.html", offline: "src/offline.ts" },
      output: {
        entryFileNames: (chunk) => (chunk.name === "offline" ? "offline.js" : "assets/[name]-[hash].js"),
        // few files to begin with: each has to be asked for before the first figure is on the screen
        codeSplitting: {
          groups: [
            { name: (id: string, of: Modules) => (atStart(of).has(id) ? "start" : null) },
            { name: "controls", test: /node_modules/, minShareCount: 2 },
            { name: "shared", test: /src/, minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: {
    host: "127.0.0.1",
    proxy: { "/api": { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
