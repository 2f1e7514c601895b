import { mount } from '@vue/test-utils'
import type { RecordLine } from '#contract/lists'
import { fieldIn, LIST_FIELDS, parseAsk } from '#core/lists'
import { choose } from '../../tests/kit/choose'
import { answering, settled } from '../../tests/kit/fetch'
import { signedIn } from '../../tests/kit/signedIn'
import BulkChange from './BulkChange.vue'
import RecordCell from './RecordCell.vue'
import { sortedBy } from './sortedBy'
import { baseOf } from './useViews'

jest.mock('vue-router', () => ({ RouterLink: { props: ['to'], template: '<a :href="to"><slot /></a>' }, useRouter: () => ({ push: jest.fn() }) }))

/** Registers as lists: their cells, and one field of many changed at once. */
const record = (id: number, more: Partial<RecordLine> = {}): RecordLine => ({
  id,
  version: 3,
  number: `A-${id}`,
  heading: 'Pump',
  retired: false,
  cells: {},
  ...more,
})
beforeEach(() => signedIn())
afterEach(() => (document.body.innerHTML = ''))

const bar = (lines: RecordLine[]) => mount(BulkChange, { props: { register: 'assets', lines }, attachTo: document.body })
const dialog = () => document.querySelector('[role="dialog"]')!

test('a field is chosen and said once for all; how each fared is told, and those that went are taken back to what they were', async () => {
  const sent = answering({
    'GET /api/vocabulary': { body: { categories: [], trades: [], teams: [], accounts: [], payers: [], sites: [], technicians: [], vendors: [] } },
    'POST /api/lists/registers/assets/changes': {
      body: {
        rows: [
          { id: 1, number: 'A-1', changed: true, version: 4, before: 'good', reasons: [] },
          { id: 2, number: 'A-2', changed: false, version: 3, before: null, reasons: [{ code: 'retired', sentence: 'It is retired.' }] },
        ],
      },
    },
  })
  const shown = bar([record(1), record(2)])
  await choose(shown, 'bulk-field', 'condition')
  await settled()
  await settled()
  await choose(shown, 'bulk-condition', 'poor')
  await shown.find('form').trigger('submit')
  await settled()
  const posts = () => sent.filter((one) => one.method === 'POST').map((one) => one.body)
  expect(posts()[0]).toEqual({
    field: 'condition',
    items: [
      { id: 1, version: 3, value: 'poor' },
      { id: 2, version: 3, value: 'poor' },
    ],
  })
  expect(shown.emitted('unmark')).toEqual([[[1]]])
  expect(dialog().textContent).toContain('Condition: 1 of 2 changed')
  expect(dialog().textContent).toContain('It is retired.')
  ;[...dialog().querySelectorAll('button')].find((one) => one.textContent.includes('Take back the 1'))!.click()
  await settled()
  expect(posts()[1]).toEqual({ field: 'condition', items: [{ id: 1, version: 4, value: 'good' }] })
})

test('what is needed cannot be emptied, what tells records apart is not offered, and retired ones are taken back', async () => {
  const sent = answering({ 'POST /api/lists/registers/assets/changes': { body: { rows: [] } } })
  const shown = bar([record(1, { retired: true })])
  const offered = (shown.findComponent({ name: 'Select' }).props('options') as { value: string; label: string }[]).map((one) => one.value)
  expect(offered).toEqual(expect.arrayContaining(['placeId', 'condition', 'retired']))
  expect(offered.filter((one) => ['tag', 'name', 'serial', 'successorId'].includes(one))).toEqual([])
  await choose(shown, 'bulk-field', 'owner')
  await shown.find('form').trigger('submit')
  expect(shown.find('[role="alert"]').text()).toContain('cannot be emptied')
  await choose(shown, 'bulk-field', 'retired')
  expect(shown.find('button[type="submit"]').text()).toContain('Take into use again')
  await shown.find('form').trigger('submit')
  await settled()
  expect(sent.find((one) => one.method === 'POST')!.body).toEqual({ field: 'retired', items: [{ id: 1, version: 3, value: 0 }] })
})

test('who may not change them is offered nothing', () => {
  signedIn(['approver'])
  expect(
    bar([record(1)])
      .find('form')
      .exists(),
  ).toBe(false)
})

test.each([
  ['condition', 'poor', 'Poor'],
  ['class', 'D3030', 'D3030 Cooling generating systems'],
  ['price', 125_00, '125.00'],
  ['retired', true, 'yes'],
  ['lifeYears', 25, '25'],
  ['place', null, ''],
  ['warrantyUntil', '2027-11-09', '9 Nov 2027'],
] as const)('the cell of %s', (column, value, words) => {
  const cell = mount(RecordCell, { props: { line: record(1, { cells: { [column]: value } }), column: fieldIn(LIST_FIELDS.assets, column)!, leads: false } })
  expect(cell.text()).toBe(words)
})

test('a number of its own is told with its unit, and a register begins with the first of the alphabet', () => {
  const column = { name: 'own7', label: 'Charge', shape: 'number', own: 7, unit: 'kg' } as const
  expect(mount(RecordCell, { props: { line: record(1, { cells: { own7: 18.5 } }), column, leads: false } }).text()).toBe('18.5 kg')
  const { ask } = parseAsk('assets', '')
  expect([sortedBy(ask, 'name').sort, sortedBy(ask, 'tag').sort, sortedBy(ask, 'price').sort]).toEqual([
    { field: 'name', down: false },
    { field: 'tag', down: true },
    { field: 'price', down: true },
  ])
  expect([baseOf('assets'), baseOf('orders')]).toEqual(['/registers/assets', '/lists/orders'])
})
