import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

const server = `http://127.0.0.1:${process.env.UMBER_PEBBLE_PORT ?? "8722"}`;

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
      },
    },
  },
  server: {
    host: "127.0.0.1",
    proxy: { "/api": { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
