// Keeps what the device page is made of, so that it opens where the server cannot be reached and says what is kept there.
// Nothing else goes through here: answers of the server are never kept.
const KEPT = 'yarrowmark-device';
const PAGE = '/j';

self.addEventListener('install', (event) => event.waitUntil(begin().then(() => self.skipWaiting())));
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { pathname, origin } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin) return;
  if (request.mode === 'navigate' && (pathname === PAGE || pathname.startsWith(`${PAGE}/`))) event.respondWith(page(request));
  // Their names change with what is in them.
  else if (pathname.startsWith('/assets/')) event.respondWith(asset(request));
});

/** The page was loaded before this was there: it and its files are fetched once more, for the first time without a server. */
async function begin() {
  const kept = await caches.open(KEPT);
  const answer = await fetch(PAGE);
  const files = [...(await answer.clone().text()).matchAll(/(?:src|href)="(\/assets\/[^"]+)"/g)].map(([, file]) => file);
  await kept.addAll(files);
  await kept.put(PAGE, answer);
}

async function page(request) {
  const kept = await caches.open(KEPT);
  try {
    const answer = await fetch(request);
    if (answer.ok) await keep(kept, answer.clone());
    return answer;
  } catch (error) {
    const known = await kept.match(PAGE);
    if (!known) throw error;
    return known;
  }
}

/** A page of another build has other files: those of the one before go. Its nonce alone is new each time. */
async function keep(kept, answer) {
  const plain = (text) => text.replace(/nonce="[^"]*"/g, '');
  const [before, now] = [await kept.match(PAGE), await answer.clone().text()];
  if (before && plain(await before.text()) !== plain(now)) await Promise.all((await kept.keys()).map((request) => kept.delete(request)));
  await kept.put(PAGE, answer);
}

async function asset(request) {
  const kept = await caches.open(KEPT);
  const known = await kept.match(request.url);
  if (known) return known;
  const answer = await fetch(request);
  // Without room for it the page works all the same, as long as the server is there.
  if (answer.ok) await kept.put(request.url, answer.clone()).catch(() => undefined);
  return answer;
}
