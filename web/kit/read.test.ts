import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { defineComponent, h, ref } from 'vue'
import type { LiveChange } from '#contract/insight'
import { endpoint } from '#contract/kit'
import { answering, settled } from '../../tests/kit/fetch'
import { forgetting, reads, staleBy, useRead, useSession } from '#web/kit'

const readThing = endpoint<{ id: number }, { id: number; said: string }>({ method: 'GET', path: '/api/things/:id', says: 'A thing.', may: 'desk.read' })
const hear = (orderId: number): LiveChange => ({
  seq: 1,
  kind: 'order.edit',
  requestId: null,
  orderId,
  visitId: null,
  register: null,
  recordId: null,
  who: 'Tobias',
})
const burst = () => new Promise((resolve) => setTimeout(resolve, 100))
beforeEach(() => setActivePinia(createPinia()))

/** A screen that shows thing `id`. */
function screen(id: ReturnType<typeof ref<number | null>>, options: Parameters<typeof useRead<{ id: number }, { id: number; said: string }>>[2] = {}) {
  return mount(
    defineComponent({
      setup() {
        const read = useRead(readThing, () => (id.value ? { id: id.value } : null), options)
        return () => h('div', [read.value.value?.said ?? 'nothing', read.problem.value ? ` (${read.problem.value.status})` : ''])
      },
    }),
  )
}

test('two who ask for the same are answered once; an input of nothing asks nothing', async () => {
  const sent = answering({ 'GET /api/things/7': () => ({ body: { id: 7, said: 'seven' } }) })
  const id = ref<number | null>(null)
  const one = screen(id)
  const other = screen(id)
  expect(sent).toHaveLength(0)
  id.value = 7
  await settled()
  expect([one.text(), other.text(), sent.length]).toEqual(['seven', 'seven', 1])
})

test('only what a change touches is read again, once for a burst; missed changes touch all of it', async () => {
  const sent = answering({ 'GET /api/things/': ({ url }) => ({ body: { id: Number(url.at(-1)), said: url.at(-1)! } }) })
  const touchedBy = (change: LiveChange, now: { id: number }) => change.orderId === now.id
  screen(ref(7), { touchedBy })
  screen(ref(8), { touchedBy })
  screen(ref(9))
  await settled()
  sent.length = 0
  for (let times = 0; times < 5; times++) staleBy(hear(7))
  await burst()
  expect(sent.map((one) => one.url)).toEqual(['/api/things/7'])
  sent.length = 0
  staleBy(null)
  await burst()
  expect(sent.map((one) => one.url)).toEqual(['/api/things/7', '/api/things/8'])
})

test('what stands beside the work holds the last while the next is read; what is opened anew is never shown from before', async () => {
  answering({ 'GET /api/things/': ({ url }) => ({ body: { id: 1, said: `thing ${url.at(-1)}` } }) })
  const id = ref<number | null>(1)
  const beside = screen(id, { holds: true })
  const work = screen(id, { anew: true })
  await settled()
  id.value = 2
  await beside.vm.$nextTick()
  expect([beside.text(), work.text()]).toEqual(['thing 1', 'nothing'])
  await settled()
  expect([beside.text(), work.text()]).toEqual(['thing 2', 'thing 2'])
  id.value = 1
  await beside.vm.$nextTick()
  await settled()
  expect(work.text()).toBe('thing 1')
})

test('a refusal is shown and what was read stays; nobody is shown what somebody else has read', async () => {
  let status = 200
  answering({
    'GET /api/things/7': () => ({ status, body: status === 200 ? { id: 7, said: 'seven' } : { type: '', title: 'No', status, detail: 'Not yours.' } }),
  })
  const shown = screen(ref(7), { touchedBy: () => true })
  await settled()
  status = 403
  staleBy(hear(7))
  await burst()
  expect(shown.text()).toBe('seven (403)')
  shown.unmount()
  expect(reads.getQueryCache().getAll().length).toBeGreaterThan(0)
  const forget = () => reads.clear()
  forgetting.add(forget)
  useSession().refresh({ accountId: 5, site: { zone: 'Europe/Dublin', currency: 'EUR', locale: 'en-IE' }, roles: [] } as never)
  forgetting.delete(forget)
  expect(reads.getQueryCache().getAll()).toHaveLength(0)
})
