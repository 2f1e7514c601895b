import fc from 'fast-check'
import { assetFills } from './assetFills'
import type { AssetSaying, AssetSayings } from './assetFills'

const FIELDS: AssetSaying[] = ['placeId', 'payerId', 'vendorId', 'contact']
const says: AssetSayings = { placeId: 4, payerId: 2, vendorId: null, contact: 'Nuala Ingleby' }

test('what is empty is filled, what differs is asked, what agrees or is not known is left', () => {
  expect(assetFills({ placeId: null, payerId: 3, vendorId: 8, contact: 'Nuala Ingleby' }, says, FIELDS)).toEqual({ fills: ['placeId'], differs: ['payerId'] })
  expect(assetFills({}, says, FIELDS)).toEqual({ fills: ['placeId', 'payerId', 'contact'], differs: [] })
  expect(assetFills({ contact: '' }, says, ['contact'])).toEqual({ fills: ['contact'], differs: [] })
  expect(assetFills({ placeId: 9, payerId: 9 }, says, ['placeId'])).toEqual({ fills: [], differs: ['placeId'] })
})

test('nothing that stands there is ever overwritten without being asked, and no field is both', () => {
  const value = fc.option(fc.integer({ min: 1, max: 3 }))
  const sayings = fc.record({ placeId: value, payerId: value, vendorId: value, contact: fc.option(fc.constantFrom('A', 'B')) })
  fc.assert(
    fc.property(sayings, sayings, fc.subarray(FIELDS), (now, said, asked) => {
      const { fills, differs } = assetFills(now, said, asked)
      for (const field of fills) expect(now[field]).toBeNull()
      for (const field of differs) expect([now[field], said[field]]).not.toContain(null)
      expect(fills.filter((field) => differs.includes(field))).toEqual([])
      expect([...fills, ...differs].every((field) => asked.includes(field))).toBe(true)
    }),
  )
})
