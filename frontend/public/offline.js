// Keeps the page itself, so that a reload finds it while the server is away. What the page asks
// the server for is never kept here.
const KEPT = 'dotstack page';

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  const isPage = pathname === '/' || (request.mode === 'navigate' && !pathname.startsWith('/api/'));
  const isPart = pathname.startsWith('/assets/');
  if (request.method === 'GET' && origin === self.location.origin && (isPage || isPart))
    event.respondWith(answered(request, isPage ? '/' : request));
});

/** The server's answer, which is kept, or the one that was kept last. */
async function answered(request, key) {
  const kept = await caches.open(KEPT);
  try {
    const fresh = await fetch(request);
    if (fresh.ok) await kept.put(key, fresh.clone());
    return fresh;
  } catch {
    return (await kept.match(key)) ?? Response.error();
  }
}
