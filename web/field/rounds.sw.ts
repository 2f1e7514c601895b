import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import type { PrecacheEntry } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

interface Told {
  sentence: string
  leadsTo: string
}
interface Page {
  url: string
  focus: () => Promise<unknown>
  navigate: (url: string) => Promise<unknown>
}
interface PushHeard {
  data: { json: () => Told } | null
  waitUntil: (work: Promise<unknown>) => void
}
interface Pressed {
  notification: { data: Told; close: () => void }
  waitUntil: (work: Promise<unknown>) => void
}
declare const self: {
  __WB_MANIFEST: (PrecacheEntry | string)[]
  registration: { showNotification: (title: string, more: object) => Promise<void> }
  clients: { matchAll: (which: object) => Promise<Page[]>; openWindow: (url: string) => Promise<unknown> }
  addEventListener: ((name: 'push', heard: (event: PushHeard) => void) => void) & ((name: 'notificationclick', pressed: (event: Pressed) => void) => void)
}

/**
 * Rounds without a network: its page, programs and fonts lie in the browser. What people read and do there is no business
 * of this file: it lies sealed in the device’s own box (web/devices), and nothing of the API is kept here.
 */
precacheAndRoute(self.__WB_MANIFEST, { directoryIndex: null as unknown as undefined, cleanURLs: false })
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { allowlist: [/^\/rounds(\/|$)/, /^\/sign-in/] }))

/** News of jobs, while Rounds is not open. What the server sealed for this browser is read by the browser itself. */
self.addEventListener('push', (event) => {
  const told = event.data?.json() ?? { sentence: 'Something is new on your jobs.', leadsTo: '/rounds' }
  event.waitUntil(self.registration.showNotification('Rounds', { body: told.sentence, data: told, icon: '/rounds-192.png', tag: told.leadsTo }))
})

/** It leads to where the news is, in the page that is open where there is one. */
self.addEventListener('notificationclick', (event) => {
  const { notification } = event
  notification.close()
  const open = async () => {
    const [page] = (await self.clients.matchAll({ type: 'window', includeUncontrolled: true })).filter(({ url }) => new URL(url).pathname.startsWith('/rounds'))
    if (!page) return self.clients.openWindow(notification.data.leadsTo)
    await page.navigate(notification.data.leadsTo)
    return page.focus()
  }
  event.waitUntil(open())
})
