import { inTakingOrder, missingOf, takenFrom } from './whereFrom'

const lying = (storeId: number, free: string, more: { kept?: string; mine?: boolean } = {}) => ({ storeId, free, mine: false, ...more })

test('a part is taken where it is kept for the order, then out of the own van, then where most of it is free', () => {
  const stores = [lying(1, '40'), lying(2, '2', { mine: true }), lying(3, '1', { kept: '1' }), lying(4, '60')]
  expect(inTakingOrder(stores).map(({ storeId }) => storeId)).toEqual([3, 2, 4, 1])
  expect(takenFrom(stores, '1')?.storeId).toBe(3)
  expect(takenFrom(stores, '2')?.storeId).toBe(2)
  expect(takenFrom(stores, '2.001')?.storeId).toBe(4)
  expect(takenFrom(stores, '61')).toBeNull()
  expect(takenFrom([], '1')).toBeNull()
  // Kept once, and used up since.
  expect(inTakingOrder([lying(1, '9'), lying(2, '3', { kept: '0' })])[0]!.storeId).toBe(1)
})

test('what is missing is reckoned in decimals, never below nought', () => {
  expect(missingOf('0.1', '0.3')).toBe('0.2')
  expect(missingOf('3', '3.000')).toBe('0')
  expect(missingOf('5', '1')).toBe('0')
})
