import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { useCarrying } from '#web/devices'
import type { Act } from '#web/devices'
import { setServerNow } from '#web/kit'
import { SignalLine } from '#web/devices'
import { answering, settled } from '../../tests/kit/fetch'
import { FIELD_ACTS } from './fieldActs'
import JobList from './JobList.vue'
import UnsentCard from './UnsentCard.vue'

beforeEach(() => {
  setActivePinia(createPinia())
  setServerNow('2026-11-23T10:30:00Z')
})
const act = (seq: number, body: Partial<Act['body']>): Act => ({
  seq,
  key: `key${seq}key${seq}key${seq}`,
  body: { name: 'note', visitId: 1, at: '2026-11-23T09:15:00.000Z', input: { text: `Note ${seq}` }, ...body } as Act['body'],
})
const refusal = {
  type: 'about:blank',
  title: 'No',
  status: 422,
  detail: 'Not saved.',
  reasons: [{ code: 'overlaps', sentence: 'You were on W-2 from 09:00 to 09:30.' }],
}
function carryingWith(...acts: Act[]) {
  const carrying = useCarrying()
  carrying.knows(FIELD_ACTS)
  carrying.acts = acts
  return carrying
}

test('what waits is said in words, of its job alone or of all with its number, folded until it is asked for', async () => {
  carryingWith(act(1, {}), act(2, { visitId: 2, name: 'stint', input: { kind: 'work' } }))
  expect(mount(UnsentCard, { props: { visitId: 1 } }).text()).toMatch(/Waits on this phone 1.*09:15.*Note: Note 1/)
  const all = mount(UnsentCard, { props: { folded: true, numberOf: (id: number) => `W-${id}` } })
  expect(all.text()).not.toContain('Clock set to work')
  await all.find('button').trigger('click')
  expect(all.text()).toMatch(/Note 1 W-1.*Clock set to work W-2/)
  expect(
    mount(UnsentCard, { props: { visitId: 3 } })
      .find('section')
      .exists(),
  ).toBe(false)
})

test('what was not taken shows both sides, and is sent again, at another time, or left out once the desk knows', async () => {
  const refused = act(1, { name: 'stint', input: { kind: 'work' }, problem: refusal })
  const carrying = carryingWith(refused, act(2, {}))
  const done: unknown[] = []
  carrying.retry = (one, body) => Promise.resolve(void done.push(['retry', one.seq, body?.at]))
  carrying.leave = (one) => Promise.resolve(void done.push(['leave', one.seq]))
  const card = mount(UnsentCard, { props: { visitId: 1 } })
  expect(card.find('article').text()).toMatch(/You.*09:15.*Clock set to work.*The desk.*You were on W-2 from 09:00 to 09:30\./)
  const press = (words: string) =>
    card
      .findAll('button')
      .find((one) => one.text() === words)!
      .trigger('click')
  await press('Send it again')
  await settled()
  await press('It was at another time')
  await card.find('input').setValue('9 30')
  await card.find('form').trigger('submit')
  expect(card.find('[role="alert"]').text()).toBe('Write a time like 16:30.')
  await card.find('input').setValue('9:30')
  await card.find('form').trigger('submit')
  await settled()
  expect(done).toEqual([
    ['retry', 1, undefined],
    ['retry', 1, '2026-11-23T09:30:00.000Z'],
  ])
  const sent = answering({ 'POST /api/rounds/1/unsent': { body: { told: '2026-11-23T10:30:00Z' } } })
  await press('Leave it out and tell the desk')
  await settled()
  await settled()
  expect(sent[0]!.body).toEqual({
    happenedAt: '2026-11-23T09:15:00.000Z',
    what: 'Clock set to work',
    why: 'You were on W-2 from 09:00 to 09:30.',
  })
  expect(done.at(-1)).toEqual(['leave', 1])
})

test('without signal nothing is left out: it stays until the desk can be told', async () => {
  const carrying = carryingWith(act(1, { problem: refusal }))
  let left = false
  carrying.leave = () => Promise.resolve(void (left = true))
  answering({ 'POST /api/rounds/1/unsent': { status: 503, body: { title: 'Away', status: 503, detail: 'Not now.', type: 'about:blank' } } })
  const card = mount(UnsentCard, { props: { visitId: 1 } })
  await card.findAll('button').at(-1)!.trigger('click')
  await settled()
  await settled()
  expect([left, card.find('[role="alert"]').text()]).toEqual([false, 'Not now.'])
})

test('the line above says that there is no signal and what waits; what is stuck is not on its way', async () => {
  const carrying = carryingWith(act(1, { problem: refusal }), act(2, {}), act(3, { visitId: 2 }))
  const line = mount(SignalLine)
  expect(line.text()).toBe('Sending 1')
  carrying.away = true
  await line.vm.$nextTick()
  expect(line.text()).toBe('No signal. One thing you did waits here until there is some.')
  carrying.acts = []
  await line.vm.$nextTick()
  expect(line.text()).toBe('No signal. You can go on; what you do is kept here.')
})

test('a list marks what is new and says what changed', () => {
  const job = {
    ...{ visitId: 1, number: 'W-1', summary: 'Socket', placeCode: 'A', placeName: 'Room', within: 'First floor', priority: null, kind: 'first' },
    ...{ visitState: 'planned', orderState: 'dispatched', plannedStart: '2026-11-23T11:00:00Z', plannedEnd: '2026-11-23T12:00:00Z', bring: 0, running: null },
    ...{ window: { from: '2026-11-23T11:00:00Z', until: '2026-11-23T13:00:00Z', with: 'Ann' }, wayMinutes: 7 },
  }
  const list = (news: string[] | null) =>
    mount(JobList, { props: { jobs: [job], newsFor: () => news }, global: { stubs: { RouterLink: { template: '<a><slot /></a>' } } } })
  expect(list([]).find('.news').text()).toBe('New')
  expect(list(['time', 'where']).find('.news').text()).toBe('Changed: time, where')
  expect(list(null).find('.news').exists()).toBe(false)
  expect(list(null).text()).toMatch(/Room, First floor.*Agreed.*11:00 to 13:00.*7 min to get there/)
})
