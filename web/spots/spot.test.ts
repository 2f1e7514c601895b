import { flushPromises, mount } from '@vue/test-utils'
import { createMemoryHistory, createRouter } from 'vue-router'
import type { SpotSheet } from '#contract/spots'
import { useCarrying } from '#web/devices'
import { answering } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import { FIELD_ACTS } from '../field/fieldActs'
import SpotView from './SpotView.vue'

const SHEET: SpotSheet = {
  ...{ placeId: 20, assetId: null, code: 'GAN-204', name: 'Studio 4', within: 'Second floor, Gannet Court', access: 'Knock', asset: null },
  known: [{ id: 7, summary: 'Tap drips', place: 'Studio 4', since: '2026-11-23T08:00:00Z', progress: { step: 'looking', sentence: 'We are looking at it.' } }],
  mine: [],
  planned: [{ kind: 'preventive', progress: { step: 'scheduled', sentence: 'Scheduled for Tuesday.' } }],
  earlier: [],
  whyNotStart: null,
}
beforeEach(() => {
  signedIn(['technician'])
  useCarrying().knows(FIELD_ACTS)
  sessionStorage.clear()
})
async function at(address: string, routes: Parameters<typeof answering>[0]) {
  const sent = answering(routes)
  const blank = { template: '<i />' }
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/rounds/spot', component: SpotView },
      { path: '/rounds', component: blank },
      { path: '/rounds/:visitId', component: blank },
    ],
  })
  await router.push(address)
  const view = mount(SpotView, { global: { plugins: [router] }, attachTo: document.body })
  await flushPromises()
  const press = async (words: string) => {
    await view
      .findAll('button')
      .find((one) => one.text() === words || one.attributes('aria-label') === words)!
      .trigger('click')
    await flushPromises()
  }
  return { view, sent, router, press }
}
const row = { placeId: 20, assetId: null, code: 'GAN-204', name: 'Studio 4', within: 'Gannet Court' }

test('a label that was scanned by the phone itself opens its place at once', async () => {
  const { view, router } = await at('/rounds/spot?site=SKE&place=GAN-204', {
    'GET /api/rounds-spots': { body: { rows: [row] } },
    'GET /api/rounds-spot?': { body: SHEET },
  })
  expect(router.currentRoute.value.query).toEqual({ placeId: '20' })
  expect(view.find('h1').text()).toBe('Studio 4')
  for (const words of ['Tap drips', 'We are looking at it.', 'Preventive', 'Scheduled for Tuesday.', 'Knock', 'Nothing was done here before.'])
    expect(view.text()).toContain(words)
})

test('reported from there, the desk has it by number; asked for again, it reads that', async () => {
  const { view, sent, press } = await at('/rounds/spot?placeId=20', {
    'GET /api/rounds-spot?': { body: SHEET },
    'POST /api/rounds-reports': { body: { number: 'R-24300' } },
    'POST /api/rounds-spot/again': { body: { number: 'R-24299' } },
  })
  await view.find('#spot-text').setValue('Blind is torn')
  await press('Somebody asked me for it')
  await view.find('#spot-asker').setValue('The warden')
  await press('Report it')
  expect(view.text()).toContain('Reported as R-24300. The desk has it.')
  expect(sent.find(({ url }) => url === '/api/rounds-reports')!.body).toMatchObject({ placeId: 20, text: 'Blind is torn', asker: 'The warden' })
  expect((view.find('#spot-text').element as HTMLTextAreaElement).value).toBe('')
  await press('Asked for again: Tap drips')
  expect(view.text()).toContain('The desk reads at R-24299')
})

test('started there, the job is open with its clock; what is refused is said, and what was typed stays', async () => {
  let status = 422
  const reasons = [{ code: 'clock_elsewhere', sentence: 'Your clock is running on W-2. Stop it there first.' }]
  const { view, router, press } = await at('/rounds/spot?placeId=20', {
    'GET /api/rounds-spot?': { body: SHEET },
    'POST /api/rounds-starts': () =>
      status === 422 ? { status, body: { type: 'about:blank', title: 'No', status, detail: 'No', reasons } } : { body: { visitId: 33, number: 'W-9' } },
  })
  await view.find('#spot-text').setValue('Handle is loose')
  await press('Start on it now')
  expect(view.find('[role="alert"]').text()).toContain('Your clock is running on W-2.')
  expect((view.find('#spot-text').element as HTMLTextAreaElement).value).toBe('Handle is loose')
  status = 200
  await press('Start on it now')
  expect(router.currentRoute.value.path).toBe('/rounds/33')
})

test('where nothing may be started it says why; without signal, that it can be reported', async () => {
  const { view } = await at('/rounds/spot?placeId=20', {
    'GET /api/rounds-spot?': { body: { ...SHEET, whyNotStart: 'Nobody is known to pay for work here.' } },
  })
  expect(view.text()).toContain('Nobody is known to pay for work here.')
  expect(view.findAll('button').map((one) => one.text())).not.toContain('Start on it now')
  useCarrying().away = true
  await flushPromises()
  expect(view.text()).toContain('Without signal it can be reported')
})

test('a code nobody knows can be reported all the same, with what was scanned', async () => {
  const { view, sent, press } = await at('/rounds/spot', {
    'GET /api/rounds-spots': { body: { rows: [] } },
    'POST /api/rounds-reports': { body: { number: 'R-1' } },
  })
  await view.find('#spot').setValue('KEL-9999')
  await view.find('#spot').trigger('keydown', { key: 'Enter' })
  await flushPromises()
  await press('Report something at KEL-9999')
  await view.find('#spot-text').setValue('Door sticks')
  await press('Report it')
  expect(sent.find(({ url }) => url === '/api/rounds-reports')!.body).toMatchObject({ code: 'KEL-9999', text: 'Door sticks' })
})
