import fc from 'fast-check'
import { REGISTER_TABLES } from '#core/lists'
import type { OwnField, OwnShape } from '#core/own'
import { REGISTERS } from '#core/registers'
import { indexNames, keyField, matchColumns, readCells, tableFields, TABLE_KINDS } from '#core/setup'
import type { CellTerms, NameIndex } from '#core/setup'

const POINT: CellTerms = { sign: '.', currency: 'EUR', monthFirst: false, today: '2026-11-23' }
const COMMA: CellTerms = { ...POINT, sign: ',' }
const AMERICAN: CellTerms = { ...POINT, monthFirst: true }
const names: NameIndex = {
  place: indexNames([
    { id: 4, code: 'TID-104', name: 'Wet lab' },
    { id: 5, code: 'TID-105', name: 'Store' },
    { id: 6, code: 'LAN-01', name: 'Store' },
  ]),
  person: indexNames([
    { id: 8, code: 'ada@b.example', name: 'Ada Ek' },
    { id: 9, code: 'ada.two@b.example', name: 'Ada Ek' },
  ]),
}
const own = (shape: OwnShape, more: Partial<OwnField> = {}): OwnField => ({ id: 7, kind: 'assets', label: 'Own', shape, unit: null, choices: [], ...more })
function read(code: string, cell: string, terms = POINT, fields = tableFields('assets')) {
  const { values, sentences } = readCells(fields, { [code]: cell }, terms, names)
  return sentences.length ? sentences[0] : values[code]
}

describe('cells of a register', () => {
  test.each<[string, string, CellTerms, unknown]>([
    ['tag', 'T-1', POINT, 'T-1'],
    ['priceMinor', '1,250.5', POINT, 125_050],
    ['priceMinor', '1.250,5', COMMA, 125_050],
    ['priceMinor', '1250.50', COMMA, 125_050],
    ['priceMinor', '-1', POINT, 'Price: -1 is below nought.'],
    ['lifeYears', '20', POINT, 20],
    ['lifeYears', '201', POINT, 'Expected life: a whole number from 0 to 200.'],
    ['installedOn', '2019-04-03', AMERICAN, '2019-04-03'],
    ['installedOn', '2019-04-03T00:00:00', POINT, '2019-04-03'],
    ['installedOn', '4/3/2019', POINT, '2019-03-04'],
    ['installedOn', '4/3/2019', AMERICAN, '2019-04-03'],
    ['installedOn', 'last spring', POINT, 'Installed: last spring is no day. Write it like 2026-11-24.'],
    ['criticality', 'HIGH', POINT, 'high'],
    ['criticality', 'High: missed at once', POINT, 'high'],
    ['classCode', 'd3030', POINT, 'D3030'],
    ['warrantyCovers', 'Parts and labour', POINT, 'both'],
    ['placeId', 'tid-104', POINT, 4],
    ['placeId', 'Wet  Lab', POINT, 4],
    ['placeId', 'TID-105 Store', POINT, 5],
    ['placeId', 'Store', POINT, 'Place: Store is the name of several. Write a code.'],
    ['placeId', 'constructor', POINT, 'Place: there is no place constructor.'],
    ['contactId', 'Ada Ek', POINT, 'Whom to ask: Ada Ek is the name of several. Write a mail address.'],
    ['contactId', 'ADA@b.example', POINT, 8],
    ['name', 'x'.repeat(121), POINT, 'Name: at most 120 characters.'],
  ])('%s from “%s”', (code, cell, terms, value) => expect(read(code, cell, terms)).toEqual(value))

  test.each<[OwnField, string, CellTerms, unknown]>([
    [own('text'), 'K-4', POINT, 'K-4'],
    [own('number', { unit: 'kg' }), '18,5 kg', COMMA, 18.5],
    [own('number'), '1.00001', POINT, 'Own: 1.00001 is no number, or has more than four decimals.'],
    [own('flag'), 'Yes', POINT, 1],
    [own('flag'), 'x', POINT, 1],
    [own('flag'), 'FALSE', POINT, 0],
    [own('flag'), 'perhaps', POINT, 'Own: say yes or no.'],
    [own('choice', { choices: [{ key: 'r_290', name: 'R-290' }] }), 'r-290', POINT, 'r_290'],
    [own('choice', { choices: [{ key: 'r_290', name: 'R-290' }] }), 'R-11', POINT, 'Own: R-11 is none of R-290.'],
    [own('date'), '3.4.2019', POINT, '2019-04-03'],
    [own('link'), 'https://a.example/x', POINT, 'https://a.example/x'],
    [own('link'), 'javascript:alert(1)', POINT, 'Own: Write an address like https://place.example/page.'],
    [own('person'), 'ada@b.example', POINT, 8],
  ])('a field of one’s own, case %#', (field, cell, terms, value) => expect(read('own7', cell, terms, tableFields('assets', [field]))).toEqual(value))

  test('an empty cell means nothing', () =>
    expect(readCells(tableFields('assets'), { tag: '', placeId: '' }, POINT, names)).toEqual({ values: {}, sentences: [] }))

  test('whatever stands in a cell, it is read or told, never both and never neither', () => {
    fc.assert(
      fc.property(fc.constantFrom(...tableFields('assets').map(({ code }) => code)), fc.string({ minLength: 1, maxLength: 30 }), (code, cell) => {
        const { values, sentences } = readCells(tableFields('assets'), { [code]: cell }, POINT, names)
        expect(Number(code in values) + sentences.length).toBe(1)
      }),
    )
  })
})

describe('columns', () => {
  test('every register is known again by one field, and finds its columns by what they are called here', () => {
    for (const kind of TABLE_KINDS) {
      const fields = tableFields(kind)
      expect(fields.find(({ code }) => code === keyField(kind).code)!.required).toBe(true)
      expect(
        matchColumns(
          fields,
          fields.map(({ name }) => name),
        ).filter((code) => code === null),
      ).toEqual([])
    }
    expect([...TABLE_KINDS]).toEqual([...REGISTERS])
  })

  test('what somebody may not see is no column of theirs', () => {
    expect(Object.keys(REGISTER_TABLES.vendors)).toContain('iban')
    expect(matchColumns(tableFields('vendors', [], ['iban', 'bankName']), ['Name', 'IBAN', 'Bank'])).toEqual(['name', null, null])
  })
})
