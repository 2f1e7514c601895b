import { createPinia, setActivePinia } from 'pinia'
import { useSession } from '#web/kit'

/** A live line that never says anything by itself. */
class FakeEventSource {
  static CLOSED = 2
  readyState = 1
  close = jest.fn()
  addEventListener = jest.fn()
}

/** A screen of its own with somebody signed in, before each test of one. */
export function signedIn(roles: string[] = ['coordinator']): void {
  setActivePinia(createPinia())
  ;(globalThis as { EventSource?: unknown }).EventSource = FakeEventSource
  useSession().refresh({ accountId: 1, name: 'Maren Quill', roles, site: { zone: 'Europe/Dublin', currency: 'EUR', locale: 'en-IE' } } as never)
}
