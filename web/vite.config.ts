import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

// The pages are kept on the device, so that the bench survives a reload while the server is away; answers never are.
const keptPages = VitePWA({
  registerType: "autoUpdate",
  useCredentials: true,
  injectRegister: "script-defer",
  workbox: {
    globPatterns: ["**/*.{js,css,html,svg,woff2}"],
    clientsClaim: true,
    skipWaiting: true,
    navigateFallback: "/index.html",
    navigateFallbackDenylist: [/^\/(practice\/)?api\//, /^\/pair/],
  },
  manifest: {
    name: "Kessik",
    short_name: "Kessik",
    description: "The bench companion of a steel tester",
    display: "standalone",
    background_color: "#f2ecdf",
    theme_color: "#f2ecdf",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), keptPages],
  build: { outDir: "../src/kessik/web_dist", emptyOutDir: true, assetsInlineLimit: 0 },
  // the guide shows the pictures of docs/screenshots
  server: {
    port: 5173,
    proxy: { "/api": "http://127.0.0.1:8737", "/practice/api": "http://127.0.0.1:8737" },
    fs: { allow: [".."] },
  },
});
