import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import type { Suggestions } from '#contract/requests'
import { useActs } from '#web/kit'
import { answering, settled } from '../../tests/kit/fetch'
import ApprovalView from '../approvals/ApprovalView.vue'
import PrecedentList from './PrecedentList.vue'
import SuggestionBox from './SuggestionBox.vue'

jest.mock('vue-router', () => ({ useRoute: () => ({ params: { token: 'tok' } }), RouterLink: { template: '<a><slot /></a>' } }))
beforeEach(() => setActivePinia(createPinia()))
afterEach(() => (document.body.innerHTML = ''))

describe('suggestions', () => {
  const found: Suggestions = {
    ready: true,
    category: { id: 4, name: 'Water', sure: 'almost certain', because: 'because of “drips”' },
    trade: null,
    asset: { id: 9, name: 'P-1 Pump', sure: 'a guess', because: 'because of where it is' },
    precedents: [
      {
        id: 7,
        number: 'W-1',
        summary: 'Tap drips',
        place: 'Lab',
        finishedAt: '2026-11-01T09:00:00Z',
        who: 'Bram',
        minutes: 45,
        costMinor: 5_750,
        outcome: 'Wear, Replaced',
      },
    ],
    duplicates: [{ id: 3, number: 'R-3', summary: 'Tap drips too', place: 'Lab', receivedAt: '2026-11-23T09:00:00Z' }],
  }
  const box = (more: object = {}) => mount(SuggestionBox, { props: { requestId: 5, version: 1, categoryId: null, assetId: null, mayTriage: true, ...more } })

  test('each says how sure and why; one key takes the first, nothing is taken by itself', async () => {
    answering({ 'GET /api/requests/5/suggestions': { body: found } })
    const shown = box()
    await settled()
    expect(shown.text()).toContain('Water, almost certain')
    expect(shown.text()).toContain('because of “drips”')
    expect(shown.emitted('take')).toBeUndefined()
    const [act] = useActs().all()
    expect(act).toMatchObject({ key: 'g', label: 'Take the suggestion: Water' })
    act!.run()
    await shown.findAll('.offers button')[1]!.trigger('click')
    expect(shown.emitted('take')).toEqual([[{ categoryId: 4 }], [{ assetId: 9 }]])
  })

  test('what is chosen already is not offered again; who may not decide is offered nothing', async () => {
    answering({ 'GET /api/requests/5/suggestions': { body: found } })
    const chosen = box({ categoryId: 4, assetId: 9 })
    await settled()
    expect(chosen.find('.offers').exists()).toBe(false)
    expect(useActs().all()).toMatchObject([{ key: 'g', whyNot: 'History suggests nothing more for this.' }])
    chosen.unmount()
    const looking = box({ mayTriage: false })
    await settled()
    expect(looking.find('.offers').exists()).toBe(false)
  })

  test('how the same was solved before stands below, read together with what is suggested', async () => {
    const sent = answering({ 'GET /api/requests/5/suggestions': { body: found } })
    box()
    const before = mount(PrecedentList, { props: { requestId: 5, version: 1 } })
    await settled()
    expect(before.text()).toContain('57.50')
    expect(sent).toHaveLength(1)
  })

  test('an open one that is perhaps the same is joined by a press', async () => {
    answering({ 'GET /api/requests/5/suggestions': { body: found } })
    const shown = box()
    await settled()
    await shown.find('[aria-label="Join to it: R-3"]').trigger('click')
    expect(shown.emitted('join')).toEqual([[3]])
  })
})

describe('deciding from a mail', () => {
  const page = {
    person: 'Ines Ferrall',
    actingFor: 'Osric Vane',
    site: { name: 'Skerry', deskPhone: '+353 91 555 0140' },
    number: 'W-9',
    version: 3,
    summary: 'Replace the pump',
    description: 'It leaks.',
    place: 'Pump hall',
    priority: 'Urgent',
    prioritySentence: null,
    currency: 'EUR',
    estimateMinor: 900_000,
    shares: [{ code: '5400', name: 'Aquarium', shareBp: 10_000 }],
    askedBy: 'Maren Quill',
    askedAt: '2026-11-23T09:00:00Z',
    expiresAt: '2026-11-30T09:00:00Z',
    pictures: [],
    over: null as string | null,
  }
  const press = (view: ReturnType<typeof mount>, words: string) =>
    view
      .findAll('button')
      .find((one) => one.text() === words)!
      .trigger('click')

  test('opening and pressing Approve send nothing; only confirming does, with the version that was read', async () => {
    const sent = answering({
      'GET /api/approval/tok/documents': { body: { rows: [] } },
      'GET /api/approval/tok': { body: page },
      'POST /api/approval/tok/decide': { body: { ...page, over: 'You have approved it.' } },
    })
    const view = mount(ApprovalView)
    await settled()
    expect(view.text()).toContain('9,000.00')
    expect(view.text()).toContain('you decide for Osric Vane')
    await press(view, 'Approve')
    expect(sent.filter((one) => one.method === 'POST')).toEqual([])
    expect(view.text()).toContain('for W-9?')
    await view.find('form').trigger('submit')
    await settled()
    expect(sent.at(-1)!.body).toMatchObject({ version: 3, verdict: 'approve' })
    expect(view.text()).toContain('You have approved it.')
    expect(view.findAll('button')).toHaveLength(0)
  })

  test('sending back waits for what has to change; a change meanwhile is read again before deciding', async () => {
    const sent = answering({
      'GET /api/approval/tok/documents': { body: { rows: [] } },
      'GET /api/approval/tok': { body: page },
      'POST /api/approval/tok/decide': { status: 409, body: { type: 'about:blank', title: 'Changed', status: 409, detail: 'Changed meanwhile' } },
    })
    const view = mount(ApprovalView)
    await settled()
    await press(view, 'Send back')
    expect(view.find('form .n-button--primary-type').attributes('disabled')).toBeDefined()
    await view.find('textarea').setValue('Ask the maker first.')
    await view.find('form').trigger('submit')
    await settled()
    await settled()
    expect(view.text()).toContain('It was changed while you read.')
    expect(sent.filter((one) => one.method === 'GET' && one.url.endsWith('/tok'))).toHaveLength(2)
    expect(view.find('form').exists()).toBe(false)
  })
})
