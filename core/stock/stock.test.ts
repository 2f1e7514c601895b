import { EQUIPMENT_FIELDS, PART_FIELDS, STORE_FIELDS } from '#core/stock'
import { namedIn, neededIn } from '#core/registers'

test('a part, a store and a piece of equipment: what is asked for, and what has to be said', () => {
  const said = (table: object) =>
    Object.entries(table as Record<string, { label: string; kind: string; under: string }>).map(
      ([name, { label, kind, under }]) => `${name}: ${label}, ${kind}, ${under}`,
    )
  expect(said(PART_FIELDS)).toEqual([
    'code: Code, line, What it is',
    'name: Name, line, What it is',
    'unit: Unit, line, What it is',
    'vendorId: Usual vendor, named, Buying',
    'leadDays: Days to deliver, count, Buying',
  ])
  expect(said(STORE_FIELDS)).toEqual(['name: Name, line, What it is', 'placeId: Place, named, What it is', 'carriedBy: Van of, named, What it is'])
  expect(said(EQUIPMENT_FIELDS)).toEqual([
    'tag: Tag, line, What it is',
    'name: Name, line, What it is',
    'placeId: Kept at, named, What it is',
    'inspectedUntil: Inspected until, day, What it is',
    'perDayMinor: Charged for a day, money, Money',
  ])
  expect([PART_FIELDS, STORE_FIELDS, EQUIPMENT_FIELDS].map(neededIn)).toEqual([['code', 'name', 'unit'], ['name'], ['tag', 'name']])
  expect(namedIn(STORE_FIELDS)).toEqual([
    { name: 'placeId', of: 'place' },
    { name: 'carriedBy', of: 'account' },
  ])
})
