/// <reference lib="webworker" />
// The shell on the device: scripts, styles and fonts of this release, and the one page for when there is no network.
// Answers of the API are not kept here: what a run needs is kept by the page (floor/kept.ts).
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching'

declare const self: ServiceWorkerGlobalScope

const PAGE = '/static/app/index.html'

cleanupOutdatedCaches()
precacheAndRoute(self.__WB_MANIFEST)

self.addEventListener('fetch', (event) => {
  if (event.request.mode !== 'navigate') return
  // The network first: a page that was opened anew is always of the newest release.
  event.respondWith(fetch(event.request).catch(async () => (await matchPrecache(PAGE)) ?? Response.error()))
})

// A new release takes over only when the page says so: never while a run is not over.
self.addEventListener('message', (event) => {
  if (event.data === 'take over') void self.skipWaiting()
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
