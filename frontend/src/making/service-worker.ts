/** Keeps the making page on the device, so that it opens without a net. What is written lies in IndexedDB, not here. */
import { clientsClaim } from "workbox-core";
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";

declare const self: ServiceWorkerGlobalScope & { skipWaiting(): Promise<void> };
declare const __KEPT__: { url: string; revision: string | null }[];
interface ServiceWorkerGlobalScope {
  addEventListener(kind: string, listener: () => void): void;
}

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(__KEPT__);
registerRoute(new NavigationRoute(createHandlerBoundToURL("/make.html"), { allowlist: [/^\/make(\/|$)/] }));
