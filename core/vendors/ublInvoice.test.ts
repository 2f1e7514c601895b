import { XMLParser } from 'fast-xml-parser'
import { eInvoice } from '../../tests/kit/eInvoice'
import { billFromUbl } from './ublInvoice'
import type { XmlNode } from './ublInvoice'

const parser = new XMLParser({ removeNSPrefix: true, ignoreAttributes: true, parseTagValue: false })
const read = async (billed: Parameters<typeof eInvoice>[0], currency = 'EUR') => billFromUbl(parser.parse(await eInvoice(billed)) as XmlNode, currency)
const callOut = { name: 'Call-out', quantity: '1', price: '140.00', amount: '140.00' }
const problem = (found: object) => ('problem' in found ? String(found.problem) : null)

test('an invoice of a reference library is read line by line, to the cent', async () => {
  const lines = [callOut, { name: 'Fitter & mate', quantity: '1.25', price: '71.00', amount: '88.75' }]
  expect(await read({ number: 'OHM-2026-118', lines, net: '228.75' })).toEqual({
    number: 'OHM-2026-118',
    taxBp: 1_350,
    lines: [
      { description: 'Call-out', quantity: '1', unitPriceMinor: 14_000 },
      { description: 'Fitter & mate', quantity: '1.25', unitPriceMinor: 7_100 },
    ],
  })
})

test('a price of a fraction of a cent, or a line with an allowance, becomes one of its whole amount', async () => {
  const cable = { name: 'Cable', quantity: '300', price: '12.34', per: '100', amount: '37.02' }
  const found = await read({ number: 'X-1', lines: [cable, { ...callOut, quantity: '2', amount: '250.00' }], net: '287.02' })
  expect(found).toMatchObject({
    lines: [
      { description: 'Cable (300)', quantity: '1', unitPriceMinor: 3_702 },
      { description: 'Call-out (2)', quantity: '1', unitPriceMinor: 25_000 },
    ],
  })
})

test('what cannot be entered as one bill is said in a sentence, and nothing of it is guessed', async () => {
  expect(problem(await read({ number: 'X', lines: [callOut], net: '140.00' }, 'GBP'))).toBe('It is in EUR; bills here are in GBP.')
  expect(problem(await read({ number: 'X', lines: [callOut, { ...callOut, tax: '23' }], net: '280.00' }))).toContain('several rates')
  expect(problem(await read({ number: 'X', lines: [callOut], net: '139.00' }))).toContain('do not add up')
  expect(problem(await read({ number: 'X', lines: [{ ...callOut, quantity: '-1', amount: '-140.00' }], net: '-140.00' }))).toContain('cannot be read')
  expect(problem(await read({ number: 'N'.repeat(41), lines: [callOut], net: '140.00' }))).toContain('no number')
  expect(problem(billFromUbl({ CreditNote: { ID: '1' } }, 'EUR'))).toContain('credit note')
  for (const other of [{}, { html: { body: 'x' } }, { Invoice: 'text' }] as XmlNode[]) expect(problem(billFromUbl(other, 'EUR'))).toBeTruthy()
})
