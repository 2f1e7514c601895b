import { Refusal } from '#core/kit'
import { ORDER_STATES } from '#core/orders'
import { FINDING_EVENTS, findingState, mayTakeBack, refuseTakeUp, mustBeOpen, orderOfFindings, priorityOf, worstSeverity } from '#core/findings'
import type { FindingFacts, FindingToOrder } from '#core/findings'

const facts = (changed: Partial<FindingFacts> = {}): FindingFacts => ({ fixedNow: false, setAsideAt: null, order: null, ...changed })
const finding = (changed: Partial<FindingToOrder> = {}): FindingToOrder => ({
  text: 'Seal worn',
  severity: 'repair',
  foundOn: 'W-31207',
  where: 'GAN-102 Studio 2',
  placeId: 31,
  path: '/1/7/31/',
  assetId: null,
  ...changed,
})

test('a finding waits until an order answers it, and is cleared once that is finished', () => {
  expect(findingState(facts())).toBe('open')
  const by = Object.fromEntries(ORDER_STATES.map((state) => [state, findingState(facts({ order: { state, discarded: false } }))]))
  expect(by).toEqual({
    draft: 'ordered',
    to_approve: 'ordered',
    ready: 'ordered',
    dispatched: 'ordered',
    on_job: 'ordered',
    on_hold: 'ordered',
    done: 'cleared',
    checked: 'cleared',
    closed: 'cleared',
    cancelled: 'open',
  })
})

test('an order that was discarded answers nothing; what was fixed or set aside waits for none', () => {
  expect(findingState(facts({ order: { state: 'draft', discarded: true } }))).toBe('open')
  expect(findingState(facts({ fixedNow: true }))).toBe('fixed')
  expect(findingState(facts({ setAsideAt: new Date() }))).toBe('aside')
})

test('only what waits goes into an order, and only what the desk has not touched is taken back', () => {
  expect(() => mustBeOpen([facts(), facts()])).not.toThrow()
  expect(() => mustBeOpen([facts({ fixedNow: true })])).toThrow(
    new Refusal([{ code: 'finding_over', sentence: 'This finding does not wait for an order any more.' }]),
  )
  expect(() => mustBeOpen([facts(), facts({ setAsideAt: 'then' })])).toThrow('1 of these findings does not wait for an order any more. Choose again.')
  expect([facts(), facts({ fixedNow: true }), facts({ setAsideAt: 'then' }), facts({ order: { state: 'draft', discarded: false } })].map(mayTakeBack)).toEqual([
    true,
    true,
    false,
    false,
  ])
})

test('what was set aside, or lies in an order nobody has begun, is taken up again', () => {
  const inOrder = (state: 'ready' | 'dispatched' | 'done') => facts({ order: { state, discarded: false } })
  expect(() => refuseTakeUp(facts({ setAsideAt: 'then' }))).not.toThrow()
  expect(() => refuseTakeUp(inOrder('ready'))).not.toThrow()
  expect(() => refuseTakeUp(inOrder('dispatched'))).toThrow('The order that answers it has begun.')
  expect(() => refuseTakeUp(inOrder('done'))).toThrow('It is put right already.')
  expect(() => refuseTakeUp(facts())).toThrow('It waits for an order already.')
})

test('the worst of several decides how soon', () => {
  expect(worstSeverity(['watch', 'unsafe', 'repair'])).toBe('unsafe')
  expect((['watch', 'repair', 'unsafe'] as const).map(priorityOf)).toEqual(['deferred', 'routine', 'urgent'])
})

test('an order of one finding is about that, where it is, on its asset', () => {
  expect(orderOfFindings([finding({ text: 'Seal worn\nWater below it', assetId: 9 })])).toEqual({
    summary: 'Seal worn',
    description: 'GAN-102 Studio 2: Seal worn\nWater below it (needs repair, found on W-31207)',
    severity: 'repair',
    placeId: 31,
    assetId: 9,
  })
})

test('an order of several stands where all of them lie, and lists them', () => {
  const made = orderOfFindings([
    finding(),
    finding({ text: 'Rail loose', severity: 'unsafe', where: 'GAN-104 Studio 4', placeId: 33, path: '/1/7/33/', assetId: 4 }),
    finding({ where: null, placeId: 40, path: '/1/7/32/40/' }),
  ])
  expect(made).toMatchObject({ summary: '3 findings of W-31207', severity: 'unsafe', placeId: 7, assetId: null })
  expect(made.description.split('\n')).toEqual([
    '1. GAN-102 Studio 2: Seal worn (needs repair, found on W-31207)',
    '2. GAN-104 Studio 4: Rail loose (unsafe, found on W-31207)',
    '3. Seal worn (needs repair, found on W-31207)',
  ])
  expect(orderOfFindings([finding(), finding({ placeId: null, path: null })]).placeId).toBeNull()
  expect(orderOfFindings([finding(), finding({ placeId: 90, path: '/2/90/' })]).placeId).toBeNull()
})

test('a long text is cut between words to what a summary may hold', () => {
  const { summary } = orderOfFindings([finding({ text: 'worn '.repeat(80) })])
  expect(summary.length).toBeLessThanOrEqual(140)
  expect(summary.endsWith('worn…')).toBe(true)
  expect(orderOfFindings([finding({ text: 'x'.repeat(400) })]).summary).toHaveLength(140)
})

test('events say what was found', () => {
  expect(FINDING_EVENTS['finding.add'].about({ text: 'Seal worn', severity: 'unsafe', where: 'GAN-102', fixedNow: true })).toBe(
    'GAN-102: Seal worn, unsafe, fixed at once',
  )
  expect(FINDING_EVENTS['finding.order'].about({ order: 'W-1', findings: 2 })).toBe('2 findings into W-1')
})
