// The service worker of the test "Ferry": it answers every load itself, so that no network takes part.
const LOAD_BYTES = 16384;
self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('fetch', (event) => {
  const load = /\/ferry\/load\/(\d+)$/.exec(new URL(event.request.url).pathname);
  if (!load) return;
  const bytes = new Uint8Array(LOAD_BYTES).fill(Number(load[1]) % 251);
  event.respondWith(new Response(bytes, { headers: { 'Content-Type': 'application/octet-stream', 'Cache-Control': 'no-store' } }));
});
