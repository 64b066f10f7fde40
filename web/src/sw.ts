/// <reference lib="webworker" />
import { matchPrecache, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";

declare const self: ServiceWorkerGlobalScope;
/** Filled in by the build: every file of the application, with what tells one version of it from another. */
declare const __FILES__: { url: string; revision: string | null }[];

const PATIENCE_MS = 1500;

precacheAndRoute(__FILES__);

/** The newest page while the server answers; else the one that is kept here. What is asked of the API always goes to the server. */
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      const kept = await matchPrecache("/index.html");
      const asked = fetch(request);
      if (!kept) return asked;
      const late = new Promise<Response>((done) => setTimeout(() => done(kept.clone()), PATIENCE_MS));
      return Promise.race([asked.catch(() => kept), late]);
    },
    { denylist: [/^\/api\//, /^\/openapi\.json/] },
  ),
);

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
