import { mount } from '@vue/test-utils'
import { computed, defineComponent, h, ref } from 'vue'
import type { Views } from '#contract/lists'
import type { OrderLine } from '#contract/orders'
import { fieldIn, LIST_FIELDS, parseAsk, parseClause } from '#core/lists'
import type { ListAsk, ListKind } from '#core/lists'
import { useLive, useSession } from '#web/kit'
import type { LiveChange } from '#contract/insight'
import { choose } from '../../tests/kit/choose'
import { answering, settled } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import BulkBar from './BulkBar.vue'
import FilterForm from './FilterForm.vue'
import { addressForFound } from './found'
import GroupList from './GroupList.vue'
import ListCell from './ListCell.vue'
import PeekCard from './PeekCard.vue'
import SaveViewForm from './SaveViewForm.vue'
import { useList } from './useList'
import { addressOf, useViews } from './useViews'
import ViewRail from './ViewRail.vue'

jest.mock('vue-router', () => ({ RouterLink: { props: ['to'], template: '<a :href="to"><slot /></a>' }, useRouter: () => ({ push: jest.fn() }) }))

const line = (id: number, more: Partial<OrderLine> = {}): OrderLine => ({
  id,
  number: `W-${id}`,
  version: 3,
  summary: 'Tap drips',
  target: {
    clock: 'working',
    startAt: '2026-11-23T08:00:00Z',
    responseDueAt: '2026-11-23T10:00:00Z',
    closeAt: '2026-11-23T14:00:00Z',
    completionDueAt: '2026-11-23T16:00:00Z',
    stoppedAt: null,
    finishedAt: null,
  },
  priority: 'urgent',
  place: 'TID-104',
  placeName: 'Laboratory 4',
  asset: null,
  category: 'Water',
  payer: '5100',
  reference: null,
  due: '2026-11-23T16:00:00Z',
  state: 'ready',
  heldFrom: null,
  kind: 'repair',
  trade: 'Plumbing',
  team: null,
  lead: null,
  supervisor: null,
  who: null,
  estimate: 12_500,
  currency: 'EUR',
  created: '2026-11-23T08:00:00Z',
  start: null,
  finished: null,
  closed: null,
  hold: null,
  ownstate: null,
  contact: null,
  archived: false,
  discarded: false,
  ...more,
})
const views: Views = {
  rows: [
    {
      key: 'outstanding',
      id: null,
      kind: 'orders',
      name: 'Outstanding',
      address: 'state=ready',
      sharedWith: 'all',
      team: null,
      owner: null,
      mine: false,
      version: 1,
    },
    { key: 'v4', id: 4, kind: 'orders', name: 'My own', address: 'state=done', sharedWith: 'nobody', team: null, owner: 'Maren Quill', mine: true, version: 2 },
    {
      key: 'v5',
      id: 5,
      kind: 'requests',
      name: 'Lent to me',
      address: 'state=new',
      sharedWith: 'all',
      team: null,
      owner: 'Tobias Achterberg',
      mine: false,
      version: 1,
    },
  ],
  usual: 'outstanding',
  team: { id: 6, name: 'Help desk' },
}
beforeEach(() => signedIn())
afterEach(() => (document.body.innerHTML = ''))

describe('a filter', () => {
  const form = (name: string, text = '', kind: ListKind = 'orders') => {
    const field = fieldIn(LIST_FIELDS[kind], name)!
    return mount(FilterForm, { props: { kind, field, clause: text ? parseClause(field, text) : null, names: {} }, attachTo: document.body })
  }
  beforeEach(() =>
    answering({
      'GET /api/vocabulary': { body: { categories: [], trades: [], teams: [], accounts: [], payers: [], sites: [], technicians: [], vendors: [] } },
    }),
  )

  test('an amount is typed as people write it and asked for in minor units', async () => {
    const shown = form('estimate')
    await shown.find('#filter-value').setValue('1,250.5')
    await shown.find('form').trigger('submit')
    expect(shown.emitted('set')).toEqual([[{ field: 'estimate', from: '125050' }]])
    await shown.find('#filter-to').setValue('dear')
    await shown.find('form').trigger('submit')
    expect(shown.find('[role="alert"]').text()).toBe('Write an amount like 1,250.00.')
    expect(form('estimate', '50000..').find<HTMLInputElement>('#filter-value').element.value).toBe('500.00')
  })

  test('days by hand or by a press; what is no day is said so', async () => {
    const shown = form('finished')
    await shown.findAll('.presets button')[2]!.trigger('click')
    await shown.find('form').trigger('submit')
    expect(shown.emitted('set')).toEqual([[{ field: 'finished', from: '-30d' }]])
    await shown.find('#filter-value').setValue('2026-02-30')
    await shown.find('form').trigger('submit')
    expect(shown.find('[role="alert"]').text()).toContain('Write a day like')
    await shown.find('#filter-value').setValue('')
    await shown.find('form').trigger('submit')
    expect(shown.find('[role="alert"]').text()).toBe('Write from when, to when, or both.')
  })

  test('nothing, something, text, and yes or no', async () => {
    const empty = form('team')
    await empty.find('input[value="none"]').setValue(true)
    await empty.find('form').trigger('submit')
    expect(empty.emitted('set')).toEqual([[{ field: 'team', empty: true }]])
    const text = form('summary')
    await text.find('form').trigger('submit')
    expect(text.find('[role="alert"]').text()).toBe('Write what to look for.')
    await text.find('input[value="not"]').setValue(true)
    await text.find('#filter-value').setValue(' tap ')
    await text.find('form').trigger('submit')
    expect(text.emitted('set')).toEqual([[{ field: 'summary', not: true, any: ['tap'] }]])
    const flag = form('archived')
    await flag.find('input[value="no"]').setValue(true)
    await flag.find('form').trigger('submit')
    expect(flag.emitted('set')).toEqual([[{ field: 'archived', any: ['no'] }]])
    const choice = form('state')
    await choice.find('form').trigger('submit')
    expect(choice.find('[role="alert"]').text()).toBe('Choose at least one.')
    const chosen = form('state', '!ready,done')
    await chosen.find('form').trigger('submit')
    expect(chosen.emitted('set')).toEqual([[{ field: 'state', not: true, any: ['ready', 'done'] }]])
  })
})

describe('reading a list', () => {
  /** A list in a component, as a screen has it. */
  function listOf(ask: ListAsk) {
    const wanted = ref(ask)
    let list!: ReturnType<typeof useList>
    const shown = mount(defineComponent({ setup: () => ((list = useList(computed(() => wanted.value))), () => h('p')) }))
    return { list, wanted, shown }
  }
  const facts = { 'GET /api/lists/orders/facts': { body: { count: 3, more: false, names: {} } } }

  test('pages are turned forth and back; another filter begins anew', async () => {
    const ten = Array.from({ length: 10 }, (_, index) => line(index + 1))
    const sent = answering({
      ...facts,
      'GET /api/lists/orders?ask=state%3Dready&after=two': { body: { rows: [line(11)], next: null } },
      'GET /api/lists/orders?ask=state%3Dready&limit=10': { body: { rows: ten, next: 'two' } },
      'GET /api/lists/orders?ask=state%3Ddone': { body: { rows: [], next: null } },
    })
    const { list, wanted } = listOf(parseAsk('orders', 'state=ready&size=10').ask)
    await settled()
    expect(list.rows.value).toHaveLength(10)
    list.turn(-1)
    list.turn(1)
    await settled()
    expect([list.rows.value.map((row) => row.id), list.trail.value.length, list.next.value]).toEqual([[11], 2, null])
    list.turn(1)
    expect(list.trail.value).toHaveLength(2)
    list.turn(-1)
    await settled()
    expect(list.rows.value).toHaveLength(10)
    wanted.value = parseAsk('orders', 'state=done&size=10').ask
    await settled()
    expect([list.rows.value, list.ready.value]).toEqual([[], true])
    expect(sent.filter((one) => one.url.includes('facts'))).toHaveLength(2)
  })

  test('all of it is read on at the end; other columns read anew without beginning again', async () => {
    answering({
      ...facts,
      'GET /api/lists/orders?ask=&after=more': { body: { rows: [line(3)], next: null } },
      'GET /api/lists/orders?ask=': { body: { rows: [line(1), line(2)], next: 'more' } },
      'GET /api/lists/orders?limit=100': { body: { rows: [line(1), line(2)], next: 'more' } },
      'GET /api/lists/orders?after=more': { body: { rows: [line(3)], next: null } },
    })
    const { list } = listOf(parseAsk('orders', 'size=all').ask)
    await settled()
    await settled()
    const before = list.rows.value.length
    await list.readOn()
    expect(list.rows.value.length).toBeGreaterThanOrEqual(before)
    expect(list.next.value).toBeNull()
  })

  test('a row somebody else changed is marked with their name; one’s own changes and the clock’s are not', async () => {
    answering({ ...facts, 'GET /api/lists/orders?': { body: { rows: [line(1), line(2)], next: null } } })
    const { list } = listOf(parseAsk('orders', '').ask)
    await settled()
    const hear = (who: string, orderId: number, kind: LiveChange['kind'] = 'order.edit') =>
      useLive().listeners.forEach((listener) => listener({ seq: 1, kind, requestId: null, orderId, visitId: null, register: null, recordId: null, who }))
    hear('Tobias Achterberg', 2)
    hear('Maren Quill', 1)
    hear('The clock', 1, 'order.past')
    hear('Tobias Achterberg', 99)
    expect([...list.changed.value]).toEqual([[2, 'Tobias Achterberg']])
  })

  test('a failure keeps what was there and says so', async () => {
    let fails = false
    answering({
      ...facts,
      'GET /api/lists/orders?': () =>
        fails ? { status: 503, body: { title: 'Down', status: 503, detail: 'The database is away.' } } : { body: { rows: [line(1)], next: null } },
    })
    const { list } = listOf(parseAsk('orders', '').ask)
    await settled()
    fails = true
    await list.reload()
    expect([list.rows.value.length, list.problem.value?.detail]).toEqual([1, 'The database is away.'])
  })
})

describe('many at once', () => {
  const bar = (lines: OrderLine[]) => mount(BulkBar, { props: { kind: 'orders', lines }, attachTo: document.body })
  const options = (shown: ReturnType<typeof bar>) => (shown.findComponent({ name: 'Select' }).props('options') as { label: string }[]).map((one) => one.label)

  test('offers what fits at least one row and what the person may do', () => {
    expect(options(bar([line(1), line(2, { state: 'done' })]))).toEqual([
      'Put on hold (fits 1)',
      'Reopen (fits 1)',
      'Mark as checked (fits 1)',
      'Cancel the order (fits 1)',
    ])
    useSession().refresh({ accountId: 3, name: 'Ines', roles: ['approver'], site: { zone: 'Europe/Dublin' } } as never)
    expect(options(bar([line(1, { state: 'to_approve' })]))).toEqual(['Approve', 'Send back'])
  })

  test('asks for the reason a rule wants before anything is sent, and tells how each row fared', async () => {
    const sent = answering({
      'GET /api/lists/orders/needed-reason': { body: { needed: true, answers: ['Too dear', 'Not needed'] } },
      'POST /api/lists/orders/moves': {
        body: {
          rows: [
            { id: 1, number: 'W-1', moved: true, state: 'cancelled', version: 4, reasons: [] },
            { id: 2, number: 'W-2', moved: false, state: 'done', version: 3, reasons: [{ code: 'wrong_state', sentence: 'The order is done.' }] },
          ],
        },
      },
    })
    const shown = bar([line(1), line(2, { state: 'done' })])
    await choose(shown, 'bulk-move', 'cancel')
    await settled()
    await shown.find('form').trigger('submit')
    expect(shown.find('[role="alert"]').text()).toBe('Choose a reason.')
    await choose(shown, 'bulk-answer', 'Too dear')
    await shown.find('#bulk-reason').setValue('twice the estimate')
    await shown.find('form').trigger('submit')
    await settled()
    const post = sent.find((one) => one.method === 'POST')!
    expect(post.body).toEqual({
      items: [
        { id: 1, version: 3 },
        { id: 2, version: 3 },
      ],
      move: 'cancel',
      reason: 'Too dear: twice the estimate',
    })
    expect(shown.emitted('unmark')).toEqual([[[1]]])
    const result = shown.find('[role="dialog"]')
    expect(result.text()).toContain('Cancel the order: 1 of 2 went')
    expect(result.text()).toContain('The order is done.')
    expect(result.text()).toContain('Take back the 1 that went, as drafts')
    await result.findAll('button')[1]!.trigger('click')
    await settled()
    expect(sent.findLast((one) => one.method === 'POST')!.body).toEqual({ items: [{ id: 1, version: 4 }], move: 'reopen', reason: 'Taken back at once' })
  })

  test('a refusal of the whole is said, and what was typed is kept', async () => {
    answering({
      'GET /api/lists/orders/needed-reason': { body: { needed: false, answers: [] } },
      'POST /api/lists/orders/moves': {
        status: 403,
        body: { title: 'Not allowed', status: 403, detail: 'Your role does not include this. Nothing was changed.' },
      },
    })
    const shown = bar([line(1)])
    await choose(shown, 'bulk-move', 'hold')
    await settled()
    await shown.find('#bulk-reason').setValue('Valve on order')
    await shown.find('form').trigger('submit')
    await settled()
    expect(shown.find('[role="alert"]').text()).toContain('Nothing was changed.')
    expect(shown.find<HTMLInputElement>('#bulk-reason').element.value).toBe('Valve on order')
  })
})

describe('views', () => {
  test('are shown by whose they are; one’s own can be dropped, each made the usual one', async () => {
    const sent = answering({
      'PATCH /api/views/usual': { body: { ...views, usual: 'v4' } },
      'DELETE /api/views/4': { body: { ...views, rows: views.rows.slice(0, 1) } },
    })
    useViews().take(views)
    const rail = mount(ViewRail, { props: { here: 'v4', kind: 'orders' } })
    expect(rail.findAll('h2').map((one) => one.text())).toEqual(['Yours', 'Shared with you', 'Orders'])
    expect(rail.text()).toContain('by Tobias Achterberg')
    expect(rail.find('a[aria-current="page"]').text()).toBe('My own')
    await rail.findAll('.acts button')[0]!.trigger('click')
    await settled()
    expect(sent[0]!.body).toEqual({ key: 'v4' })
    expect(useViews().views!.usual).toBe('v4')
    await rail.find('.acts button').trigger('click')
    await settled()
    expect(useViews().views!.rows).toHaveLength(1)
    expect(addressOf(views.rows[0]!)).toBe('/lists/orders?state=ready&view=outstanding')
  })

  test('a name taken is said at its field; one’s own is changed or kept beside another', async () => {
    const sent = answering({
      'POST /api/views': {
        status: 422,
        body: {
          title: 'No',
          status: 422,
          detail: 'No',
          reasons: [{ code: 'name_taken', sentence: 'You have a view called “My own” already; choose another name.', field: 'name' }],
        },
      },
      'PATCH /api/views/4': { body: views },
    })
    useViews().take(views)
    const form = mount(SaveViewForm, { props: { kind: 'orders', address: 'state=ready', view: null }, attachTo: document.body })
    await form.find('#view-name').setValue('My own')
    await form.find('form').trigger('submit')
    await settled()
    expect(form.find('.field-frame [role="alert"]').text()).toContain('choose another name')
    const own = mount(SaveViewForm, { props: { kind: 'orders', address: 'state=checked', view: views.rows[1]! }, attachTo: document.body })
    await own.find('form').trigger('submit')
    await settled()
    expect(sent.filter((one) => one.method !== 'GET').at(-1)).toMatchObject({
      method: 'PATCH',
      body: { version: 2, name: 'My own', address: 'state=checked', sharedWith: 'nobody' },
    })
    expect(own.emitted('saved')).toEqual([['v4', 'My own']])
  })

  test('who is in no team cannot share with one', () => {
    useViews().take({ ...views, team: null })
    const form = mount(SaveViewForm, { props: { kind: 'orders', address: '', view: null } })
    expect(form.find('input[value="team"]').attributes('disabled')).toBeDefined()
    expect(form.text()).toContain('you are in none')
  })
})

describe('what a row shows', () => {
  test.each([
    ['number', 'W-7'],
    ['summary', 'Tap drips'],
    ['state', 'Ready'],
    ['priority', 'Urgent'],
    ['estimate', '125.00'],
    ['place', 'TID-104 Laboratory 4'],
    ['kind', 'Repair'],
    ['hold', 'Waiting for a part'],
    ['team', ''],
  ])('%s', (column, words) => {
    const cell = mount(ListCell, { props: { kind: 'orders', line: line(7, { hold: 'part' }), column: fieldIn(LIST_FIELDS.orders, column)! } })
    expect(cell.text()).toBe(words)
  })

  test('the essentials, read when asked for', async () => {
    answering({
      'GET /api/lists/orders/peek/7': {
        body: {
          id: 7,
          number: 'W-7',
          summary: 'Tap drips',
          description: 'The right one',
          facts: [{ label: 'Place', words: 'TID-104' }],
          last: { at: '2026-11-23T09:00:00Z', who: 'Ines', kind: 'order.approve', reason: 'Fine' },
        },
      },
    })
    const card = mount(PeekCard, { props: { kind: 'orders', id: 7 } })
    expect(card.find('aside').exists()).toBe(false)
    await settled()
    expect(card.text()).toContain('The right one')
    expect(card.text()).toContain('Last: Ines')
  })
})

test('groups open to their rows, and lead to a list of their own', async () => {
  answering({
    'GET /api/lists/orders/groups': {
      body: {
        rows: [
          { value: '3', label: 'Plumbing', count: 60, past: 2, estimateMinor: 86_000 },
          { value: 'none', label: 'None', count: 1, past: 0, estimateMinor: null },
        ],
      },
    },
    'GET /api/lists/orders?ask=state%3Dready%26trade%3D3': { body: { rows: [line(1)], next: null } },
  })
  const shown = mount(GroupList, { props: { ask: parseAsk('orders', 'state=ready&group=trade').ask, open: null } })
  await settled()
  expect(shown.findAll('.head').map((one) => one.text())).toEqual(['Plumbing602 past target860.00', 'None1none past target'])
  await shown.find('.head').trigger('click')
  await settled()
  expect(shown.find('.on a').attributes('href')).toBe('/lists/orders?state=ready&trade=3')
  expect(shown.find('.on').text()).toBe('Show all 60 as a list')
})

test('what was found opens where it belongs', () => {
  const found = (type: 'order', station: 'field' | null, title = 'W-7') => addressForFound({ type, id: 7, title, station })
  expect(found('order', 'field')).toBe('/desk/field/order/7')
  expect(found('conversation' as never, 'triage' as never)).toBe('/desk/triage/request/7')
  expect(found('person' as never, null, 'Osric Vane')).toBe('/registers/people/7')
})
