import fc from 'fast-check'
import {
  dailyDemand,
  economicQuantity,
  isAllThere,
  orderingReasons,
  purchaseTotal,
  reorderPoint,
  serviceFactor,
  SERVICE_LEVELS,
  toCome,
  billDifference,
  USUAL_BUYING,
  weighPart,
} from '#core/stock'
import type { ToWeigh } from '#core/stock'

test('the economic quantity of the handbook example: D = 1,000, S = 10, H = 2 is 100', () => {
  // Section 10 of the sums names it; the formula is Harris’s of 1913.
  expect(economicQuantity(1_000, 10, 2)).toBe(100)
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 1e5 }), fc.integer({ min: 1, max: 1e5 }), (demand, order, holding) => {
      const cost = (quantity: number) => (demand / quantity) * order + (quantity / 2) * holding
      const best = economicQuantity(demand, order, holding)
      // No other quantity costs less, and placing costs as much as holding there.
      expect(cost(best)).toBeLessThanOrEqual(cost(best * 1.1))
      expect(cost(best)).toBeLessThanOrEqual(cost(best * 0.9))
      expect((demand / best) * order).toBeCloseTo((best / 2) * holding, 4)
    }),
  )
})

test('factors of a service level are quantiles of the normal distribution, as integrating its density says', () => {
  const below = (z: number) => {
    // Simpson’s rule from far below to z.
    const [from, steps] = [-8, 4_000]
    const width = (z - from) / steps
    const density = (x: number) => Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)
    let sum = density(from) + density(z)
    for (let n = 1; n < steps; n++) sum += density(from + n * width) * (n % 2 ? 4 : 2)
    return (sum * width) / 3
  }
  for (const level of SERVICE_LEVELS) expect(below(serviceFactor(level)) * 100).toBeCloseTo(level, 2)
})

test('demand that comes by chance: mean and spread of a day from what was issued', () => {
  expect(dailyDemand({ days: 100, sum: 50, squares: 100 })).toEqual({ mean: 0.5, deviation: 1 })
  expect(dailyDemand({ days: 0, sum: 5, squares: 5 })).toEqual({ mean: 0, deviation: 0 })
  expect(dailyDemand({ days: 30, sum: -2, squares: 4 }).mean).toBe(0)
  expect(reorderPoint({ mean: 2, deviation: 3 }, 4, 97.5)).toEqual({ point: 8 + 1.96 * 3 * 2, safety: 1.96 * 3 * 2 })
  expect(reorderPoint({ mean: 2, deviation: 3 }, 4, 50)).toEqual({ point: 8, safety: 0 })
})

describe('whether a part is bought', () => {
  const part: ToWeigh = {
    unit: 'pc',
    onHand: 20,
    reserved: 0,
    onOrder: 0,
    awaited: 0,
    unitCostMinor: 2_000,
    leadDays: 10,
    demand: { days: 365, sum: 365, squares: 365 },
  }
  const weigh = (more: Partial<ToWeigh>) => weighPart({ ...part, ...more }, USUAL_BUYING)

  test('at its reorder point, not above; what is on its way counts, what is kept or awaited does not', () => {
    // One a day, ten days: 10 + 1.6449 x sqrt(10) = 15.2.
    expect(weigh({}).reorderPoint).toBeCloseTo(15.2, 1)
    expect([weigh({}).buy, weigh({ onHand: 16 }).buy]).toEqual([0, 0])
    expect(weigh({ onHand: 15 }).buy).toBe(Math.round(Math.sqrt((2 * 365 * 2_500) / 400)))
    expect([weigh({ onHand: 15, onOrder: 5 }).buy, weigh({ reserved: 5 }).buy > 0, weigh({ awaited: 6 }).buy > 0]).toEqual([0, true, true])
  })

  test('never used, it is bought only for orders that wait; used and worthless, as many as bring it above its point', () => {
    const unused = { demand: { days: 0, sum: 0, squares: 0 } }
    expect(weigh({ ...unused, onHand: 0 }).buy).toBe(0)
    expect(weigh({ ...unused, onHand: 1, awaited: 3.5 }).buy).toBe(3)
    expect(weigh({ onHand: 3, unitCostMinor: 0 })).toMatchObject({ economicQuantity: null, buy: 13 })
  })

  test('whatever is bought brings what is left above the point, in whole units', () => {
    const amount = fc.integer({ min: 0, max: 500 })
    fc.assert(
      fc.property(amount, amount, amount, amount, fc.integer({ min: 0, max: 100_000 }), amount, (onHand, reserved, onOrder, awaited, unitCostMinor, used) => {
        const {
          buy,
          position,
          reorderPoint: point,
        } = weigh({ onHand, reserved, onOrder, awaited, unitCostMinor, demand: { days: 365, sum: used, squares: used * 2 } })
        expect(Number.isInteger(buy) && buy >= 0).toBe(true)
        if (buy) expect(position + buy).toBeGreaterThanOrEqual(used ? point : 0)
      }),
    )
  })
})

test('what is to come, what it comes to, and how a bill differs', () => {
  const lines = [
    { quantity: '10', received: '4', priceMinor: 450 },
    { quantity: '2.5', received: '2.5', priceMinor: null },
  ]
  expect(lines.map(toCome)).toEqual(['6', '0'])
  expect([isAllThere(lines), purchaseTotal(lines)]).toEqual([false, 4_500])
  expect([billDifference(1_800, lines), billDifference(1_700, lines)]).toEqual([null, 'The bill is 1.00 less than what was received at its prices, 18.00.'])
  expect(orderingReasons({ state: 'asked', vendorId: null, lines: [] }).map(({ field }) => field)).toEqual(['vendorId', 'lines'])
  expect(orderingReasons({ state: 'ordered', vendorId: 1, lines }).map(({ code }) => code)).toEqual(['wrong_state'])
})
