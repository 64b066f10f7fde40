import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // Nothing is inlined: the content security policy allows files of our own only.
  build: { assetsInlineLimit: 0, target: "es2022" },
  server: { proxy: { "/api": `http://127.0.0.1:${process.env.API_PORT ?? 8000}` } },
});
