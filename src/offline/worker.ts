/**
 * Keeps the app itself in the browser, so that shows open, are edited and saved while nothing serves it. A new version
 * waits until every window is closed: no script changes under a running show.
 */
import { CacheFirst, NetworkFirst, Serwist, type PrecacheEntry } from "serwist";

declare global {
  // Put in by the build: every file of the app with its revision.
  var __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
}

const PAGES = "pages";
const FILES = "files";
/** A page that is not answered for so long is taken from what is kept, seconds. */
const PATIENCE_S = 4;

/** Every page of every show is the same: which show it is, its address says. */
const pageKey = (url: URL): string => new URL(url.pathname.startsWith("/show/") ? "/show/" : "/", url.origin).href;
const isPage = ({ request, url }: { request: Request; url: URL }): boolean =>
  request.mode === "navigate" && (url.pathname === "/" || url.pathname.startsWith("/show/"));

const serwist = new Serwist({
  precacheEntries: globalThis.__SW_MANIFEST ?? [],
  precacheOptions: { cleanupOutdatedCaches: true },
  skipWaiting: false,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: isPage,
      handler: new NetworkFirst({
        cacheName: PAGES,
        networkTimeoutSeconds: PATIENCE_S,
        plugins: [
          {
            cacheKeyWillBeUsed: async ({ request }) => pageKey(new URL(request.url)),
            cacheWillUpdate: async ({ response }) => (response.status === 200 ? response : null),
          },
        ],
      }),
    },
    // A page of a newer version than the files kept beforehand still finds its own.
    {
      matcher: ({ url }) => url.pathname.startsWith("/_next/static/"),
      handler: new CacheFirst({ cacheName: FILES }),
    },
  ],
});

/** The first visit came before anything was kept: its pages are asked for once more. */
async function keepPages(): Promise<void> {
  const pages = await caches.open(PAGES);
  for (const path of ["/", "/show/demo/build"]) {
    const answer = await fetch(path, { cache: "no-store" });
    if (answer.ok) await pages.put(pageKey(new URL(path, location.origin)), answer);
  }
}

/** Scripts of workers are told by their address what to load: a kept answer would have an address of its own. */
async function workerScript(request: Request): Promise<Response> {
  const found = (await caches.match(request, { ignoreSearch: true })) ?? (await fetch(request));
  return new Response(found.body, { status: found.status, headers: found.headers });
}

addEventListener("install", (event) =>
  (event as Event & { waitUntil(done: Promise<unknown>): void }).waitUntil(keepPages()),
);
// What was met beside the files kept beforehand was of a version between: this one has its own.
addEventListener("activate", (event) =>
  (event as Event & { waitUntil(done: Promise<unknown>): void }).waitUntil(caches.delete(FILES)),
);
addEventListener("fetch", (event) => {
  const asked = event as Event & { request: Request; respondWith(answer: Promise<Response>): void };
  if (asked.request.destination !== "worker" || new URL(asked.request.url).origin !== location.origin) return;
  asked.respondWith(workerScript(asked.request));
  asked.stopImmediatePropagation();
});
serwist.addEventListeners();
