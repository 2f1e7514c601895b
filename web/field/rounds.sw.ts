import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import type { PrecacheEntry } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: { __WB_MANIFEST: (PrecacheEntry | string)[] }

/**
 * Rounds without a network: its page, programs and fonts lie in the browser. What people read and do there is no business
 * of this file: it lies sealed in the device’s own box (web/devices), and nothing of the API is kept here.
 */
precacheAndRoute(self.__WB_MANIFEST, { directoryIndex: null as unknown as undefined, cleanURLs: false })
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { allowlist: [/^\/rounds(\/|$)/, /^\/sign-in/] }))
