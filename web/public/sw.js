/* The log and the day stay readable while the server is away: asked for first, kept, and shown from there when nobody
   answers. Nothing else is touched; what changes something always goes to the server. */
const KEPT = 'ausblick-1'
const READABLE = /^\/($|assets\/|fonts\/|favicon|api\/me$|api\/productions)/

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) =>
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((name) => name !== KEPT).map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  ),
)

async function answer(request) {
  const kept = await caches.open(KEPT)
  try {
    const response = await fetch(request)
    if (response.ok) await kept.put(request, response.clone())
    return response
  } catch (error) {
    const old = await kept.match(request)
    if (!old) throw error
    const at = old.headers.get('date')
    for (const client of await self.clients.matchAll({ includeUncontrolled: true })) client.postMessage({ keptAt: at })
    return old
  }
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  const readable = request.method === 'GET' && url.origin === self.location.origin && READABLE.test(url.pathname)
  if (readable && !url.pathname.includes('/export/')) event.respondWith(answer(request))
})
