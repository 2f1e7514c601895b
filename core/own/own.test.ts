import fc from 'fast-check'
import { OWN_EVENTS, choiceKey, ownId, ownName, ownSays, readOwnValue } from '#core/own'
import type { OwnField, OwnShape } from '#core/own'

const field = (shape: OwnShape, more: Partial<OwnField> = {}): OwnField => ({
  id: 1,
  kind: 'assets',
  label: 'Refrigerant',
  shape,
  unit: null,
  choices: [
    { key: 'r_290', name: 'R-290' },
    { key: 'r_744', name: 'R-744' },
  ],
  ...more,
})

test.each<[OwnShape, unknown, unknown]>([
  ['text', '  K-412 ', 'K-412'],
  ['text', 'a'.repeat(400), 'a'.repeat(400)],
  ['text', ' ', null],
  ['number', 12.34567, 12.3457],
  ['number', '-0.5', -0.5],
  ['number', 0, 0],
  ['date', '2028-02-29', '2028-02-29'],
  ['choice', 'r_744', 'r_744'],
  ['flag', 0, 0],
  ['flag', 1, 1],
  ['link', 'https://manuals.example/x?y=1', 'https://manuals.example/x?y=1'],
  ['link', 'mailto:desk@skerry.example', 'mailto:desk@skerry.example'],
  ['person', 7, 7],
  ['person', '', null],
  ['number', null, null],
])('%s: %p is kept as %p', (shape, sent, value) => expect(readOwnValue(field(shape), sent)).toEqual({ value }))

test.each<[OwnShape, unknown]>([
  ['text', 'a'.repeat(401)],
  ['number', 'twelve'],
  ['number', 1e12],
  ['number', Number.NaN],
  ['number', '1e3'],
  ['date', '2027-02-29'],
  ['date', '23.11.2026'],
  ['date', '1899-12-31'],
  ['choice', 'R-290'],
  ['choice', 3],
  ['flag', 2],
  ['flag', 'yes'],
  ['link', 'manuals.example'],
  ['link', 'javascript:alert(1)'],
  ['link', 'data:text/html,x'],
  ['person', 'Maren'],
  ['person', 1.5],
])('%s: %p is refused with a sentence', (shape, sent) => expect(readOwnValue(field(shape), sent)).toEqual({ problem: expect.stringMatching(/\.$/) }))

test('what is kept is read again as it is, whatever was sent', () => {
  const shapes: OwnShape[] = ['text', 'number', 'date', 'choice', 'flag', 'link', 'person']
  fc.assert(
    fc.property(fc.constantFrom(...shapes), fc.oneof(fc.string(), fc.double(), fc.integer(), fc.constantFrom('r_290', '2026-11-25', null)), (shape, sent) => {
      const read = readOwnValue(field(shape), sent)
      if ('value' in read) expect(readOwnValue(field(shape), read.value)).toEqual(read)
    }),
  )
})

test('a value is said in words: choices by their name, numbers with their unit', () => {
  const says = (one: OwnField, value: string | number | null) =>
    ownSays(
      one,
      value,
      (id) => `person ${id}`,
      (day) => `<${day}>`,
    )
  expect([
    says(field('choice'), 'r_290'),
    says(field('choice'), 'gone'),
    says(field('number', { unit: 'kg' }), 1.5),
    says(field('flag'), 0),
    says(field('person'), 4),
    says(field('date'), '2026-11-25'),
    says(field('text'), null),
  ]).toEqual(['R-290', 'gone', '1.5 kg', 'No', 'person 4', '<2026-11-25>', ''])
})

test('choices get keys no other has, which an address can hold', () => {
  expect([choiceKey('R-1234ze (E)', []), choiceKey('Größe', []), choiceKey('日本', []), choiceKey('none', []), choiceKey('A', ['a', 'a_2'])]).toEqual([
    'r_1234ze_e',
    'gro_e',
    'choice',
    'none_2',
    'a_3',
  ])
  expect([ownId(ownName(12)), ownId('own0'), ownId('own'), ownId('own12x'), ownId('place')]).toEqual([12, null, null, null, null])
})

test('the timeline tells every change in its words', () => {
  const { about } = OWN_EVENTS['own.edit']
  expect(
    about({
      changes: [
        { label: 'Charge', from: '', to: '4 kg' },
        { label: 'Manual', from: 'x', to: '' },
      ],
    }),
  ).toBe('charge from nothing to 4 kg, manual from x to nothing')
  expect(about({})).toBe('')
})
