/**
 * Opens the application where the server does not answer: built files as they are, the page and what was last asked for as
 * they last came. Nothing that is entered goes through here: that waits in the outbox.
 */
import { type PrecacheEntry, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'

interface Scope {
  __BUILT_FILES: PrecacheEntry[] // filled in by the build
  clients: { claim(): Promise<void> }
  addEventListener(type: string, listener: (event: { waitUntil(what: Promise<unknown>): void }) => void): void
}
declare const self: Scope

const PATIENCE_S = 4
const PAGE = 'page'
const ANSWERS = 'answers' // emptied when somebody signs out (forgetAnswers in api/queries.ts)
/** What is brought as a file, comes from an instrument now, or goes on for as long as the page is open is no answer to keep. */
const NO_ANSWER = /^\/api\/(records\/[^/]+\/|jobs\/[^/]+\/(stream|live)|instruments\/stream)/

precacheAndRoute(self.__BUILT_FILES)

// One page serves every address.
const page = new NetworkFirst({
  cacheName: PAGE,
  networkTimeoutSeconds: PATIENCE_S,
  plugins: [{ cacheKeyWillBeUsed: async () => '/' }],
})
registerRoute(new NavigationRoute(page, { denylist: [/^\/(api|static)\//] }))

registerRoute(
  ({ url, request, sameOrigin }) =>
    sameOrigin && request.method === 'GET' && url.pathname.startsWith('/api/') && !NO_ANSWER.test(url.pathname),
  new NetworkFirst({
    cacheName: ANSWERS,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [
      {
        fetchDidSucceed: async ({ response }) => {
          if (response.status >= 500 && !response.headers.has('X-Fault')) throw new Error(`${response.status}`)
          return response
        },
        cachedResponseWillBeUsed: async ({ cachedResponse }) => cachedResponse && markedKept(cachedResponse),
      },
    ],
  }),
)

function markedKept(response: Response): Response {
  const headers = new Headers(response.headers)
  headers.set('X-Kept', 'yes')
  return new Response(response.body, { status: response.status, headers })
}

self.addEventListener('install', (event) => event.waitUntil(caches.open(PAGE).then((cache) => cache.add('/'))))
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
