import { readyLines } from '#core/methods'
import type { PartStanding } from '#core/methods'
import { whole } from '../../tests/kit/wholeOrder'

const facts = { ...whole, state: 'ready' as const, stepsFirst: [], contactName: 'Aoife', access: null }
const part = (more: Partial<PartStanding>): PartStanding => ({ name: 'Belt', unit: 'pc', planned: '2', reserved: '0', issued: '0', free: '0', ...more })
const codes = (...asked: Parameters<typeof readyLines>) => readyLines(...asked).map(({ code }) => code)

test('nothing stands between a plain approved order and dispatch', () => expect(readyLines(facts, [], [])).toEqual([]))

test('each thing that does is told once, with where it is cured', () => {
  const lines = readyLines(
    { ...facts, state: 'to_approve', stepsFirst: ['Call first'], contactName: null },
    [part({}), part({ name: 'Filter', free: '3' })],
    [
      { hazard: 'Fan', control: 'Isolate', permit: 'isolation' },
      { hazard: 'Cable', control: 'Isolate', permit: 'isolation' },
      { hazard: 'Noise', control: 'Plugs', permit: null },
    ],
  )
  expect(lines.map(({ sentence, field }) => [sentence, field])).toEqual([
    ['It has not been approved.', 'approval'],
    ['2 pc of Belt are not in stock.', 'parts'],
    ['2 pc of Filter are on hand and not reserved for it.', 'parts'],
    ['“Call first” comes first.', 'steps'],
    ['It takes a permit: electrical isolation.', 'steps'],
    ['Nobody is named who lets them in, and nothing is said of access.', 'contactName'],
  ])
})

test.each<[string, Partial<PartStanding>, string[]]>([
  ['kept', { reserved: '2' }, []],
  ['taken', { issued: '2' }, []],
  ['half taken, half kept', { issued: '1', reserved: '1' }, []],
  ['kept in part, the rest there', { reserved: '0.5', free: '1.5' }, ['unkept']],
  ['kept in part, the rest missing by a thousandth', { reserved: '0.5', free: '1.499' }, ['missing']],
  ['more taken than planned', { issued: '3' }, []],
])('a part that is %s', (_name, standing, expected) => expect(codes(facts, [part(standing)], [])).toEqual(expected))

test('what is missing and ordered for it counts from the day after it should come; what is not sure, or too little, does not', () => {
  const bought = (quantity: string, expectedOn: string | null, more = {}) => ({ state: 'ordered', quantity, expectedOn, forThis: true, ...more })
  const of = (...coming: NonNullable<PartStanding['coming']>) => readyLines(facts, [part({ coming })], []).map(({ code, after }) => [code, after])
  expect(of(bought('1', '2026-11-27'), bought('1', '2026-11-26'), bought('9', '2026-12-24'))).toEqual([['coming', '2026-11-27']])
  expect(readyLines(facts, [part({ free: '0.5', coming: [bought('1.5', '2026-11-26')] })], [])[0]!.sentence).toBe('1.5 pc of Belt are expected on Thu 26 Nov.')
  for (const one of [
    bought('1.999', '2026-11-26'),
    bought('2', null),
    bought('2', '2026-11-26', { state: 'asked' }),
    bought('2', '2026-11-26', { forThis: false }),
  ])
    expect(of(one)).toEqual([['missing', undefined]])
})

test('equipment that is not booked, a warranty in force and a plan that outgrew what was agreed to are told as well', () => {
  const lines = readyLines({ ...facts, outgrownMinor: 33_600, estimateMinor: 20_000 }, [], [], {
    unbooked: ['Scaffold tower'],
    warranty: { asset: 'CH-1 Seawater chiller 1', vendor: 'Northbay Cooling', until: 'Fri 5 Mar 2027' },
  })
  expect(lines.map(({ code, sentence, field }) => [code, sentence, field])).toEqual([
    ['outgrown', 'What is planned comes to 336.00; 200.00 was agreed to. Ask for approval again, or plan less.', 'estimate'],
    ['equipment', 'Scaffold tower is not booked for it.', 'equipment'],
    ['warranty', 'CH-1 Seawater chiller 1 is under warranty with Northbay Cooling until Fri 5 Mar 2027: send for them, or know why not.', 'vendorId'],
  ])
})

test('access: nothing is told once a time is agreed; while one is offered, how that stands; and what is booked in its space then', () => {
  const of = (beside: Parameters<typeof readyLines>[3], contact: string | null = null) =>
    readyLines({ ...facts, contactName: contact }, [], [], beside).map(({ code, sentence, field }) => [code, sentence, field])
  expect(of({ agreed: true })).toEqual([])
  expect(of({})).toEqual([['access', expect.stringContaining('Nobody is named'), 'contactName']])
  const waits = { name: 'Nora', state: 'waits' as const }
  expect(of({ offered: waits }, 'Aoife')).toEqual([['access', 'Nora has not chosen a time yet.', 'window']])
  expect(of({ offered: { ...waits, state: 'passed' } })).toEqual([['access', 'Nora chose none of the times offered, and all have passed.', 'window']])
  expect(of({ offered: { ...waits, state: 'none_fits' } })).toEqual([['access', 'None of the times offered fits Nora: agree on another.', 'window']])
  expect(of({ agreed: true, offered: waits, booked: ['“Seminar”, Nora Vale'], untold: ['TID-207 Seminar room 1'] })).toEqual([
    ['space', 'Booked then: “Seminar”, Nora Vale. Take the space out of use, or agree on another time.', 'closure'],
    ['space', 'The bookings system could not be told that TID-207 Seminar room 1 is out of use.', 'closure'],
  ])
})
