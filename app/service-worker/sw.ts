/// <reference lib="webworker" />
import CRC32 from 'crc-32'
import { CacheableResponsePlugin } from 'workbox-cacheable-response'
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { CacheFirst, NetworkOnly } from 'workbox-strategies'
import { PICTURES } from '../network/caches'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] }

/** The code of this version: a page that runs finds all of it here, whatever the server has by then. A newer worker waits until no page of this one is open. */
const code = self.__WB_MANIFEST
precacheAndRoute(code)
cleanupOutdatedCaches()

/** All pages are one shell; that of this version goes with its code. The page that asks for a passphrase is there for everybody. */
const SHELLS = 'bellatrait-shell'
const SHELL_PAGE = '/enter'
const shells = `${SHELLS}-${CRC32.str(JSON.stringify(code)) >>> 0}`

self.addEventListener('install', (e) =>
  e.waitUntil(caches.open(shells).then((c) => c.add(new Request(SHELL_PAGE, { cache: 'reload' })))),
)

async function withoutOthers(): Promise<void> {
  const gone = (await caches.keys()).filter((name) => name.startsWith(SHELLS) && name !== shells)
  await Promise.all(gone.map((name) => caches.delete(name)))
  // The page that fetched this worker is looked after from now on, with the code that it has.
  await self.clients.claim()
}
self.addEventListener('activate', (e) => e.waitUntil(withoutOthers()))

/** Who stands before a server that is not there says so. */
const IS_AWAY = new Set([502, 503, 504])

const pages = new NetworkOnly({
  networkTimeoutSeconds: 4,
  plugins: [
    {
      fetchDidSucceed: ({ response }) =>
        IS_AWAY.has(response.status) ? Promise.reject(new Error('The server is away.')) : Promise.resolve(response),
      handlerDidError: () => caches.match(SHELL_PAGE, { cacheName: shells }),
    },
  ],
})
registerRoute(new NavigationRoute(pages, { allowlist: [/^\/$/, /^\/(?:drawings|tasks)\//, /^\/enter\/?$/] }))

/** Pictures of sketches are named by what they hold: one that was here once is the same. */
registerRoute(
  ({ url, request }) => request.method === 'GET' && /^\/api\/(images|traces)\//.test(url.pathname),
  new CacheFirst({
    cacheName: PICTURES,
    plugins: [
      new CacheableResponsePlugin({ statuses: [200] }),
      new ExpirationPlugin({ maxEntries: 120, purgeOnQuotaError: true }),
    ],
  }),
)
