import fc from 'fast-check'
import { readIban, VENDOR_FIELDS } from '#core/vendors'

/** Examples as the registry of ISO 13616 prints them (from memory). */
const EXAMPLES = [
  'GB82 WEST 1234 5698 7654 32',
  'DE89 3704 0044 0532 0130 00',
  'FR14 2004 1010 0505 0001 3M02 606',
  'IE29 AIBK 9311 5212 3456 78',
  'NO93 8601 1117 947',
]

test.each(EXAMPLES)('%s fits its check digits, however it is spaced', (iban) => {
  expect(readIban(iban)).toBe(iban.replaceAll(' ', ''))
  expect(readIban(iban.toLowerCase().replaceAll(' ', ''))).toBe(iban.replaceAll(' ', ''))
})

test('one digit typed wrong never fits, nor do two that changed places', () => {
  const iban = 'DE89370400440532013000'
  fc.assert(
    fc.property(fc.integer({ min: 2, max: iban.length - 1 }), fc.integer({ min: 1, max: 9 }), (at, by) => {
      const wrong = iban.slice(0, at) + String((Number(iban[at]) + by) % 10) + iban.slice(at + 1)
      expect(readIban(wrong)).toBeNull()
    }),
  )
  for (let at = 4; at < iban.length - 1; at++)
    if (iban[at] !== iban[at + 1]) expect(readIban(iban.slice(0, at) + iban[at + 1]! + iban[at]! + iban.slice(at + 2))).toBeNull()
})

test.each(['', 'DE89', '12345678901234567890', 'DE8937040044053201300', 'not a number'])('“%s” is none', (text) => expect(readIban(text)).toBeNull())

test('a vendor needs a name and a mail address; bank details are for who pays', () => {
  expect(Object.entries(VENDOR_FIELDS).flatMap(([name, field]) => (field.needed ? [name] : []))).toEqual(['name', 'email'])
  expect(Object.entries(VENDOR_FIELDS).flatMap(([name, field]) => (field.may ? [`${name}: ${field.may}`] : []))).toEqual([
    'bankName: ledger.post',
    'iban: ledger.post',
  ])
})
