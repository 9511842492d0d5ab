/**
 * The app without a network. Its shell and its editor are kept when it is first opened; fonts, media and what is rarely
 * needed once they were used. A newer version is kept beside the one that runs, and takes its place when the user says
 * so. It is bundled by itself (`scripts/build/offline.mjs`), which knows all files.
 */
import {
  addPlugins,
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  matchPrecache,
  precacheAndRoute,
} from 'workbox-precaching';
import { RangeRequestsPlugin } from 'workbox-range-requests';
import { NavigationRoute, registerRoute } from 'workbox-routing';
import { CacheFirst } from 'workbox-strategies';
import type { ToService } from './messages';

/** Files that are kept from the first; the name of one without a revision holds its content's hash. */
declare const KEPT: { readonly url: string; readonly revision: string | null }[];
/** Files that are kept once they were used, and their revisions. */
declare const USED: Readonly<Record<string, string>>;

/** The part of a service worker's scope that is used here. */
interface Scope {
  skipWaiting(): Promise<void>;
  readonly clients: {
    claim(): Promise<void>;
    matchAll(options: { type: 'window' }): Promise<readonly { focus(): Promise<unknown> }[]>;
    openWindow(path: string): Promise<unknown>;
  };
  addEventListener(
    type: 'message',
    listener: (event: MessageEvent & { waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
  addEventListener(
    type: 'activate',
    listener: (event: { waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
  addEventListener(
    type: 'notificationclick',
    listener: (event: { notification: Notification; waitUntil(work: Promise<unknown>): void }) => void,
  ): void;
}
const scope = self as unknown as Scope;

// Clips are asked for in parts.
addPlugins([new RangeRequestsPlugin()]);
precacheAndRoute(KEPT, { cleanURLs: false });
cleanupOutdatedCaches();
// Every address that is no file is the app's own; but the server does something, or looks at a token.
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//, /[?&]token=/] }),
);

// Without a network there is no server that makes films.
registerRoute('/api/films', ({ request }) => fetch(request).catch(() => Response.json([])));
registerRoute('/api/footage', ({ request }) => fetch(request).catch(() => Response.json({})));

const USED_CACHE = 'used-files';
const keyOf = (url: string) => `${url}?revision=${USED[new URL(url).pathname]}`;
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && Object.hasOwn(USED, url.pathname),
  new CacheFirst({
    cacheName: USED_CACHE,
    plugins: [
      {
        cacheKeyWillBeUsed: async ({ request }) => keyOf(request.url),
        // Of what is asked for in parts all comes, so that it can be kept: these are small files.
        requestWillFetch: async ({ request }) =>
          request.headers.has('range') ? new Request(request.url) : request,
      },
      new RangeRequestsPlugin(),
      { handlerDidError: async ({ request }) => instead(request) },
    ],
  }),
);

/** What stands for a file that was never used, without a network. */
async function instead(request: Request): Promise<Response | undefined> {
  // A still is painted.
  if (request.destination === 'image') return new Response(null, { status: 204 });
  // Documents of templates are kept, all as one file.
  const [, id] = /^\/templates\/([^/]+)\/template\.json$/.exec(new URL(request.url).pathname) ?? [];
  if (id === undefined) return undefined;
  const all = (await (await matchPrecache('/templates/documents.json'))?.json()) as
    | { id: string }[]
    | undefined;
  const found = all?.find((template) => template.id === id);
  return found && Response.json(found);
}

scope.addEventListener('activate', (event) => {
  event.waitUntil(dropOld().then(() => scope.clients.claim()));
});

/** Removes files of versions before this one. */
async function dropOld(): Promise<void> {
  const cache = await caches.open(USED_CACHE);
  const now = new Set(Object.keys(USED).map((path) => keyOf(new URL(path, location.href).href)));
  for (const { url } of await cache.keys()) if (!now.has(url)) await cache.delete(url);
}

// A notice that is touched leads to the app.
scope.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const windows = scope.clients.matchAll({ type: 'window' });
  event.waitUntil(windows.then(([first]) => (first ? first.focus() : scope.clients.openWindow('/renders'))));
});

scope.addEventListener('message', (event) => {
  const told = event.data as ToService;
  if ('renew' in told) void scope.skipWaiting();
  else event.waitUntil(keepUsed(told.keep));
});

/** Keeps files that were used before; what does not come now is kept when it is used again. */
async function keepUsed(addresses: readonly string[]): Promise<void> {
  const cache = await caches.open(USED_CACHE);
  for (const address of addresses) {
    const url = new URL(address);
    if (url.origin !== location.origin || !Object.hasOwn(USED, url.pathname)) continue;
    if (await cache.match(keyOf(url.href))) continue;
    const reply = await fetch(url).catch(() => undefined);
    if (reply?.status === 200) await cache.put(keyOf(url.href), reply);
  }
}
