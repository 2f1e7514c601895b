import fc from 'fast-check'
import { averageAfter, freeOf, STOCK_EVENTS } from '#core/stock'

test('what is kept for others is not free, and nothing is below nought', () => {
  expect([freeOf('5', '2'), freeOf('5.125', '0.125'), freeOf('1', '4'), freeOf('0', '0')]).toEqual(['3', '5', '0', '0'])
})

describe('moving average', () => {
  // Weighted average cost, by hand: (10 x 4.00 + 5 x 7.00) / 15 = 5.00.
  test.each<[string, number, string, number, number]>([
    ['10', 400, '5', 700, 500],
    ['0', 0, '5', 700, 700],
    ['-2', 400, '5', 700, 700],
    ['3', 100, '1', 101, 100],
    // (1 x 1.00 + 1 x 1.01) / 2 = 1.005, rounded half up.
    ['1', 100, '1', 101, 101],
    ['0.5', 300, '0.25', 600, 400],
  ])('%s at %d and %s more at %d make %d', (onHand, average, received, price, after) => expect(averageAfter(onHand, average, received, price)).toBe(after))

  test('lies between what was and what came, and the value is kept but for rounding', () => {
    const quantity = fc.integer({ min: 1, max: 5_000_000 }).map((n) => n / 1000)
    const price = fc.integer({ min: 0, max: 1_000_000 })
    fc.assert(
      fc.property(quantity, price, quantity, price, (onHand, average, received, cost) => {
        const after = averageAfter(String(onHand), average, String(received), cost)
        expect(after).toBeGreaterThanOrEqual(Math.min(average, cost))
        expect(after).toBeLessThanOrEqual(Math.max(average, cost))
        const all = onHand + received
        expect(Math.abs(after * all - (onHand * average + received * cost))).toBeLessThanOrEqual(all * 0.5 + 1e-6 * all)
      }),
    )
  })
})

test('the timeline tells each movement in its words', () => {
  expect([
    STOCK_EVENTS['stock.move'].about({ act: 'Receive', part: 'Belt', quantity: '3', unit: 'pc', store: 'Main', to: null }),
    STOCK_EVENTS['stock.move'].about({ act: 'Transfer to another store', part: 'Belt', quantity: '3', unit: 'pc', store: 'Main', to: 'Shed' }),
    STOCK_EVENTS['stock.reserve'].about({ part: 'Belt', quantity: '2', unit: 'pc', store: 'Main' }),
    STOCK_EVENTS['stock.release'].about({ part: 'Belt', quantity: '2', unit: 'pc', store: 'Main' }),
  ]).toEqual(['receive, 3 pc Belt, Main', 'transfer to another store, 3 pc Belt, Main to Shed', '2 pc Belt in Main', '2 pc Belt in Main'])
})
