import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** The service worker is told every file of the application: those with a hash in their names, the page and the public ones by their content. */
function filesForTheServiceWorker(): Plugin {
  const revision = (content: string | Uint8Array) => createHash("sha256").update(content).digest("hex").slice(0, 16);
  return {
    name: "files-for-the-service-worker",
    enforce: "post",
    generateBundle(_, bundle) {
      const worker = bundle["sw.js"];
      if (worker?.type !== "chunk") return;
      const built = Object.values(bundle).filter((file) => file !== worker && !file.fileName.endsWith(".woff"));
      const files = built.map((file) => ({
        url: `/${file.fileName}`,
        revision: file.fileName.startsWith("assets/") ? null : revision(file.type === "asset" ? file.source : file.code),
      }));
      for (const name of readdirSync("public")) files.push({ url: `/${name}`, revision: revision(readFileSync(`public/${name}`)) });
      worker.code = worker.code.replace("__FILES__", JSON.stringify(files));
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), filesForTheServiceWorker()],
  // Nothing is inlined: the content security policy allows files of our own only.
  build: {
    assetsInlineLimit: 0,
    target: "es2022",
    rollupOptions: {
      input: { main: "index.html", sw: "src/sw.ts" },
      output: { entryFileNames: (chunk) => (chunk.name === "sw" ? "sw.js" : "assets/[name]-[hash].js") },
    },
  },
  server: { proxy: { "/api": `http://127.0.0.1:${process.env.API_PORT ?? 8000}` } },
});
