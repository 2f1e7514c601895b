import Big from 'big.js'
import fc from 'fast-check'
import { allocate, chargedHours, formatMinor, lineAmount, percentOf, roundHalfUp } from '#core/kit'

describe('money', () => {
  test('100.00 in three is 33.34, 33.33, 33.33', () => {
    expect(allocate(10_000, [1, 1, 1])).toEqual([3_334, 3_333, 3_333])
  })

  test('parts add to the whole, differ from the exact share by less than a cent, and never change sign', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }),
        fc.array(fc.integer({ min: 0, max: 10_000 }), { minLength: 1, maxLength: 20 }).filter((weights) => weights.some((weight) => weight > 0)),
        (amount, weights) => {
          const parts = allocate(amount, weights)
          const sum = weights.reduce((total, weight) => total + weight, 0)
          expect(parts.reduce((total, part) => total + part, 0)).toBe(amount)
          parts.forEach((part, index) => {
            expect(Math.abs(part - (amount * weights[index]!) / sum)).toBeLessThan(1 + 1e-6)
            expect(Math.sign(part) * Math.sign(amount)).toBeGreaterThanOrEqual(0)
          })
        },
      ),
    )
  })

  // Largest remainders first (Hamilton's method); worked by hand: 100 by 1:2:4 is 14.29, 28.57, 57.14.
  test('the cent that is left goes to the largest remainder, and of two alike to the earlier', () => {
    expect(allocate(100, [1, 2, 4])).toEqual([14, 29, 57])
    expect(allocate(100, [4, 2, 1])).toEqual([57, 29, 14])
    expect(allocate(101, [1, 0, 1])).toEqual([51, 0, 50])
    expect(allocate(-101, [1, 0, 1])).toEqual([-51, 0, -50])
    expect(allocate(5, [1, 1, 1, 1, 1, 1, 1])).toEqual([1, 1, 1, 1, 1, 0, 0])
    expect(allocate(0, [3, 4])).toEqual([0, 0])
    expect(Object.is(allocate(-1, [0, 1])[0], 0)).toBe(true)
    expect(() => allocate(100, [0])).toThrow('at least one above zero')
  })

  test.each([[[0, 0]], [[-1, 2]], [[0.5, 1]], [[]]])('weights %j divide nothing', (weights) => {
    expect(() => allocate(100, weights)).toThrow(RangeError)
  })

  test('rounds half up, away from zero', () => {
    expect([0.5, 1.5, 2.5, -0.5, 2.4].map((value) => roundHalfUp(new Big(value)))).toEqual([1, 2, 3, -1, 2])
  })

  test('percentages and lines are exact decimals', () => {
    expect(percentOf(20_000, 1_500)).toBe(3_000)
    expect(percentOf(1_005, 5_000)).toBe(503)
    // 1.005 x 100 is 100.5 in decimals, and 100.49999999999999 in binary floats.
    expect(lineAmount('1.005', 100)).toBe(101)
    expect(chargedHours(75)).toBe('1.250')
    expect([formatMinor(-123_450), formatMinor(0), formatMinor(5), formatMinor(100_000_000)]).toEqual(['−1,234.50', '0.00', '0.05', '1,000,000.00'])
  })
})
