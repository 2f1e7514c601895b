import fc from 'fast-check'
import { estimateOf, likeCosts, planChanges, vendorMinutes } from '#core/methods'
import type { EstimateFacts, VendorTerms } from '#core/methods'
import { hasOutgrown } from '#core/orders'

const vendor: VendorTerms = { name: 'Northbay', callOutMinor: 4_500, perHourMinor: 9_000, minimumMinutes: 60, stepMinutes: 30 }
const facts: EstimateFacts = {
  tradeName: (id) => ['', 'Electrical', 'HVAC', 'Lifts'][id]!,
  partName: (id) => `Part ${id}`,
  rate: (id) => (id === 3 ? null : { perHourMinor: 6_000, people: id }),
  partCost: (id) => (id === 9 ? null : 1_235),
  costing: 'average',
  hire: (id) => (id === 9 ? null : { name: `Equipment ${id}`, perDayMinor: 2_500, days: id === 1 ? null : id }),
  vendor: null,
  vendorDoes: (id) => id !== 1,
}
const labour = (tradeId: number, minutes: number, people = 1) => ({ tradeId, people, minutes })

test('our own people at the mean of their rates, parts at the average price', () => {
  const estimate = estimateOf({ labour: [labour(1, 50, 2), labour(2, 20)], parts: [{ partId: 4, quantity: '1.5' }], tools: [] }, facts)
  expect(estimate.lines.map(({ what, how, costMinor }) => [what, how, costMinor])).toEqual([
    ['Electrical', '2 × 50 min at the mean rate of the one who does it', 10_000],
    ['HVAC', '20 min at the mean rate of 2 people', 2_000],
    // 1.5 x 12.35 = 18.525, rounded half up.
    ['Part 4', '1.5 at the average price', 1_853],
  ])
  expect([estimate.totalMinor, estimate.unknown]).toEqual([13_853, []])
})

test('equipment at its rate for each day it is booked, for one while it is not, and once however often it is named', () => {
  const tool = (equipmentId: number | null) => ({ text: 'Tower', equipmentId })
  const { lines, totalMinor } = estimateOf({ labour: [], parts: [], tools: [tool(1), tool(3), tool(3), tool(9), tool(null)] }, facts)
  expect(lines.map(({ kind, what, how, costMinor }) => [kind, what, how, costMinor])).toEqual([
    ['equipment', 'Equipment 1', '1 day at its rate, not booked yet', 2_500],
    ['equipment', 'Equipment 3', '3 days at its rate', 7_500],
  ])
  expect(totalMinor).toBe(10_000)
})

test('the vendor the order names by its terms: minimum, step and one call-out, for the trades it does', () => {
  const estimate = estimateOf({ labour: [labour(1, 30), labour(2, 70, 2), labour(3, 10)], parts: [], tools: [] }, { ...facts, vendor })
  expect(estimate.lines.map(({ kind, costMinor }) => [kind, costMinor])).toEqual([
    ['labour', 3_000],
    // Two people, 70 minutes charged as 90.
    ['vendor', 27_000],
    // Ten minutes charged as the least, 60.
    ['vendor', 9_000],
    ['vendor', 4_500],
  ])
  expect(estimate.lines[1]!.how).toBe('2 × 90 min charged for 70 at the agreed rate')
})

test('what has no price is said, and the total is without it', () => {
  const estimate = estimateOf(
    { labour: [labour(3, 30)], parts: [{ partId: 9, quantity: '1' }], tools: [] },
    { ...facts, vendor: { ...vendor, perHourMinor: null } },
  )
  expect([estimate.lines, estimate.totalMinor]).toEqual([[], 0])
  expect(estimate.unknown).toEqual(['Nobody here does Lifts, and no vendor with an agreed rate is named.', 'Part 9 was never in stock here: it has no price.'])
})

test('a vendor never charges less than was worked, nor a whole step more, but for the minimum', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 2_000 }),
      fc.integer({ min: 0, max: 240 }),
      fc.integer({ min: 1, max: 90 }),
      (minutes, minimumMinutes, stepMinutes) => {
        const charged = vendorMinutes(minutes, { minimumMinutes, stepMinutes })
        expect(charged).toBeGreaterThanOrEqual(minutes)
        expect(charged).toBeLessThan(Math.max(minimumMinutes + 1, minutes + stepMinutes))
      },
    ),
  )
  expect(vendorMinutes(35, { minimumMinutes: null, stepMinutes: null })).toBe(35)
})

test('more is never cheaper: another minute, person or part adds to the total or leaves it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 3 }),
      fc.integer({ min: 1, max: 500 }),
      fc.integer({ min: 1, max: 4 }),
      fc.boolean(),
      (trade, minutes, people, named) => {
        const known = { ...facts, vendor: named ? vendor : null }
        const total = (line: ReturnType<typeof labour>) => estimateOf({ labour: [line], parts: [], tools: [] }, known).totalMinor
        expect(total(labour(trade, minutes + 1, people))).toBeGreaterThanOrEqual(total(labour(trade, minutes, people)))
        expect(total(labour(trade, minutes, people + 1))).toBeGreaterThanOrEqual(total(labour(trade, minutes, people)))
      },
    ),
  )
})

test('what such orders cost is told from three on: the median and where eight of ten lie', () => {
  expect(likeCosts([100, 200])).toBeNull()
  expect(likeCosts([30_000, 10_000, 20_000, 50_000, 40_000])).toEqual({ orders: 5, medianMinor: 30_000, fromMinor: 14_000, toMinor: 46_000 })
})

test('what changed between two plans: what came, what went, what is more; the same is left out', () => {
  const line = (what: string, how: string, costMinor: number) => ({ kind: 'parts' as const, what, how, costMinor })
  const before = [line('Belt', '1 at the average price', 1_200), line('Seal', '2 at the average price', 800), line('Plumbing', '60 min', 5_000)]
  const now = [line('Belt', '3 at the average price', 3_600), line('Plumbing', '60 min', 5_000), line('Filter', '1 at the average price', 400)]
  expect(planChanges(before, now)).toEqual([
    { what: 'Belt', before: '1 at the average price', now: '3 at the average price', byMinor: 2_400 },
    { what: 'Seal', before: '2 at the average price', now: null, byMinor: -800 },
    { what: 'Filter', before: null, now: '1 at the average price', byMinor: 400 },
  ])
  expect(planChanges(before, before)).toEqual([])
})

test('a plan has outgrown what was agreed to only beyond what the site lets pass', () => {
  expect([hasOutgrown(11_000, 10_000, { tolerancePercent: 10 }), hasOutgrown(11_001, 10_000, { tolerancePercent: 10 })]).toEqual([false, true])
  expect([hasOutgrown(10_000, 10_000, { tolerancePercent: 0 }), hasOutgrown(1, 0, { tolerancePercent: 0 })]).toEqual([false, true])
})
