import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { answering } from '../../tests/kit/fetch'
import TellHere from '../devices/TellHere.vue'

beforeEach(() => setActivePinia(createPinia()))
const all = globalThis as unknown as Record<string, unknown>
let subscription: object | null
const unsubscribed = jest.fn(() => ((subscription = null), Promise.resolve(true)))

/** A browser with a push service, where somebody is asked and says this. */
function browserWith(permission: 'granted' | 'denied', reached = true): void {
  subscription = null
  unsubscribed.mockClear()
  all.PushManager = class {}
  all.Notification = { permission: 'default', requestPermission: () => Promise.resolve(permission) }
  const made = {
    endpoint: 'https://push.browser.example/1',
    toJSON: () => ({ endpoint: 'https://push.browser.example/1', keys: { p256dh: 'p'.repeat(87), auth: 'a'.repeat(22) } }),
    unsubscribe: unsubscribed,
  }
  const pushManager = {
    getSubscription: () => Promise.resolve(subscription),
    subscribe: () => (reached ? Promise.resolve((subscription = made)) : Promise.reject(new Error('no network'))),
  }
  Object.defineProperty(navigator, 'serviceWorker', { value: { ready: Promise.resolve({ pushManager }) }, configurable: true })
}
afterEach(() => {
  delete all.PushManager
  delete all.Notification
})
const key = { 'GET /api/push': { body: { key: 'B'.repeat(87) } } }
async function shown(routes: Parameters<typeof answering>[0]) {
  const sent = answering(routes)
  const wrapper = mount(TellHere)
  await flushPromises()
  const press = async () => {
    await wrapper.find('button').trigger('click')
    await flushPromises()
  }
  return { wrapper, sent, press }
}

test('where the browser has no push service, or we send to none, nothing is offered', async () => {
  expect((await shown(key)).wrapper.find('button').exists()).toBe(false)
  browserWith('granted')
  expect((await shown({ 'GET /api/push': { body: { key: null } } })).wrapper.find('button').exists()).toBe(false)
  ;(all.Notification as { permission: string }).permission = 'denied'
  expect((await shown(key)).wrapper.find('button').exists()).toBe(false)
})

test('by a press the phone is told from now on, and by another no more', async () => {
  browserWith('granted')
  const { wrapper, sent, press } = await shown({ ...key, 'POST /api/push/drop': { body: { kept: false } }, 'POST /api/push': { body: { kept: true } } })
  expect(wrapper.find('button').text()).toBe('Tell me of new jobs on this phone')
  await press()
  expect(sent.at(-1)!.body).toEqual({ endpoint: 'https://push.browser.example/1', p256dh: 'p'.repeat(87), auth: 'a'.repeat(22) })
  expect(wrapper.text()).toContain('are told on this phone.')
  expect(wrapper.find('button').text()).toBe('Tell me nothing on this phone')
  await press()
  expect(sent.at(-1)!.url).toBe('/api/push/drop')
  expect(unsubscribed).toHaveBeenCalledTimes(1)
  expect(wrapper.text()).toContain('mail comes as before')
})

test.each([
  ['forbidden', 'denied' as const, true, {}, 'may not tell you here'],
  ['its service away', 'granted' as const, false, {}, 'cannot be reached now'],
  [
    'a service we do not send to',
    'granted' as const,
    true,
    {
      'POST /api/push': {
        status: 422,
        body: { type: 'about:blank', title: 'No', status: 422, detail: 'No', reasons: [{ code: 'x', sentence: 'We do not send there.', field: 'endpoint' }] },
      },
    },
    'We do not send there.',
  ],
])('%s: it says so, and nothing is half on', async (_what, permission, reached, routes, words) => {
  browserWith(permission, reached)
  const { wrapper, press } = await shown({ ...key, ...routes })
  await press()
  expect(wrapper.text()).toContain(words)
  expect(wrapper.find('button').text()).toBe('Tell me of new jobs on this phone')
  expect(subscription).toBeNull()
})
