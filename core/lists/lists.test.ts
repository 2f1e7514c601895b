import fc from 'fast-check'
import { DateTime } from 'luxon'
import { formatMinor } from '#core/kit'
import { REGISTERS } from '#core/registers'
import {
  calendarDay,
  clauseWords,
  dayWords,
  endOfDay,
  fieldIn,
  formatAsk,
  formatClause,
  isDay,
  LIST_FIELDS,
  listFieldsFor,
  LIST_KINDS,
  parseAsk,
  parseClause,
  REGISTER_COLUMNS,
  safeCell,
  SHIPPED_VIEWS,
  Spelling,
  startOfDay,
  USUAL_COLUMNS,
  withClause,
  withoutField,
} from './index'
import type { Clause, ListAsk, ListField, ListKind } from './index'

const DUBLIN = 'Europe/Dublin'
const NOW = new Date('2026-11-25T10:30:00Z')

/** Anything a field can be asked. */
function clauseFor(field: ListField): fc.Arbitrary<Clause> {
  const { name, shape, choices } = field
  const base = { field: name }
  const day = fc.oneof(
    fc.constant('today'),
    fc.integer({ min: -500, max: 500 }).map((days) => `${days}d`),
    fc.date({ min: new Date('2020-01-01'), max: new Date('2030-12-31'), noInvalidDate: true }).map((date) => date.toISOString().slice(0, 10)),
  )
  const amount = fc.integer({ min: 0, max: 2_000_000_000 }).map(String)
  const span = (end: fc.Arbitrary<string>) =>
    fc.oneof(
      end.map((from) => ({ ...base, from })),
      end.map((to) => ({ ...base, to })),
      fc.tuple(end, end).map(([from, to]) => ({ ...base, from, to })),
    )
  const several = (value: fc.Arbitrary<string>) =>
    fc.tuple(fc.uniqueArray(value, { minLength: 1, maxLength: 6 }), fc.boolean()).map(([any, not]) => ({ ...base, ...(not ? { not: true } : {}), any }))
  const text = fc
    .string({ minLength: 1, maxLength: 40, unit: 'binary' })
    .filter((words) => words.trim() === words && !words.startsWith('!') && !['none', 'any'].includes(words) && !/[\ud800-\udfff]/.test(words))
  const shapes: Record<ListField['shape'], fc.Arbitrary<Clause>> = {
    choice: several(fc.constantFrom(...Object.keys(choices ?? { x: 1 }))),
    named: several(fc.integer({ min: 1, max: 99_999 }).map(String)),
    money: span(amount),
    count: span(amount),
    percent: span(amount),
    number: span(fc.integer({ min: -9_999_999, max: 9_999_999 }).map((value) => String(value / 100))),
    day: span(day),
    date: span(day),
    text: fc.tuple(text, fc.boolean()).map(([words, not]) => ({ ...base, ...(not ? { not: true } : {}), any: [words] })),
    words: text.map((words) => ({ ...base, any: [words] })),
    flag: fc.constantFrom('yes', 'no').map((answer) => ({ ...base, any: [answer] })),
  }
  return field.empties
    ? fc.oneof({ weight: 4, arbitrary: shapes[shape] }, { weight: 1, arbitrary: fc.boolean().map((empty) => ({ ...base, empty })) })
    : shapes[shape]
}

const askFor = (kind: ListKind): fc.Arbitrary<ListAsk> => {
  const fields = [...LIST_FIELDS[kind]]
  return fc.record({
    kind: fc.constant(kind),
    fields: fc.constant(fields),
    clauses: fc
      .shuffledSubarray(
        fields.filter((field) => !field.unasked),
        { maxLength: Math.min(5, fields.filter((field) => !field.unasked).length) },
      )
      .chain((chosen) => fc.tuple(...chosen.map(clauseFor))),
    sort: fc.record({ field: fc.constantFrom(...fields.filter((field) => field.sorts).map((field) => field.name)), down: fc.boolean() }),
    group: fc.constantFrom(null, ...fields.filter((field) => field.groups).map((field) => field.name)),
    columns: fc.subarray(
      fields.filter((field) => field.shows).map((field) => field.name),
      { minLength: 1 },
    ),
    size: fc.constantFrom('10', '20', '50', 'all'),
    compact: fc.boolean(),
  })
}

describe('the address of a list', () => {
  test.each(LIST_KINDS)('everything a list of %s can show is read back as it was written', (kind) => {
    fc.assert(
      fc.property(askFor(kind), (ask) => {
        const { ask: again, wrong } = parseAsk(kind, formatAsk(ask))
        expect(wrong).toEqual([])
        // Sets of clauses have no order of their own.
        const sorted = (list: ListAsk) => ({ ...list, clauses: [...list.clauses].sort((a, b) => (a.field < b.field ? -1 : 1)) })
        expect(sorted(again)).toEqual(sorted(ask))
      }),
      { numRuns: 400 },
    )
  })

  test('is short enough to be read, and what is as usual is left out', () => {
    expect(formatAsk(parseAsk('orders', '').ask)).toBe('')
    const address = 'state=ready,dispatched&priority=!deferred&finished=-30d..&sort=-finished'
    expect(formatAsk(parseAsk('orders', address).ask)).toBe(address)
  })

  test('what cannot be read is named and left out; the rest stays', () => {
    const { ask, wrong } = parseAsk(
      'orders',
      'state=ready,flying&colour=red&priority=urgent&sort=weight&size=9&columns=number,nothing&due=soon&estimate=1..2..3',
    )
    expect(wrong.sort()).toEqual(['colour', 'columns', 'due', 'estimate', 'size', 'sort', 'state'])
    expect(ask.clauses).toEqual([{ field: 'priority', any: ['urgent'] }])
    expect(ask.columns).toEqual(USUAL_COLUMNS.orders)
  })

  test('a field is asked once: a new clause takes the place of the old', () => {
    const ask = withClause(parseAsk('orders', 'state=ready&kind=repair').ask, { field: 'state', any: ['done'] })
    expect(formatAsk(ask)).toBe('state=done&kind=repair')
    expect(formatAsk(withoutField(ask, 'state'))).toBe('kind=repair')
    expect(parseAsk('orders', 'state=ready&state=done').wrong).toEqual(['state'])
  })

  test('me and my team are for people and teams only', () => {
    expect(parseClause(fieldIn(LIST_FIELDS.orders, 'lead')!, 'me')).toEqual({ field: 'lead', any: ['me'] })
    expect(parseClause(fieldIn(LIST_FIELDS.orders, 'team')!, 'mine')).toEqual({ field: 'team', any: ['mine'] })
    expect(parseClause(fieldIn(LIST_FIELDS.orders, 'place')!, 'me')).toBeNull()
    expect(parseClause(fieldIn(LIST_FIELDS.orders, 'lead')!, 'mine')).toBeNull()
    expect(parseClause(fieldIn(LIST_FIELDS.orders, 'lead')!, '0')).toBeNull()
  })

  test.each(SHIPPED_VIEWS)('the shipped view “$name” asks nothing that cannot be asked', ({ kind, address }) => {
    expect(parseAsk(kind, address).wrong).toEqual([])
  })

  test('the views a coordinator lives in are all there', () => {
    expect(SHIPPED_VIEWS.map((view) => view.key)).toEqual(
      expect.arrayContaining(['outstanding', 'under-way', 'finished', 'historical', 'archived', 'cancelled', 'my-team']),
    )
  })
})

describe('the list of a register', () => {
  test('asks by what its records are called, and by everything that is kept of them', () => {
    expect(parseAsk('assets', 'place=12&price=100..5000&warrantyUntil=today..30d&class=D3030&owner=!us&life=none').wrong).toEqual(['life'])
    const { ask } = parseAsk('assets', 'lifeYears=none&condition=poor,failing&sort=-installedOn')
    expect(ask.clauses).toEqual([
      { field: 'lifeYears', empty: true },
      { field: 'condition', any: ['poor', 'failing'] },
    ])
    expect(parseAsk('payers', '').ask.sort).toEqual({ field: 'code', down: false })
  })

  test.each(REGISTERS)('%s run by what leads them, and show only what there is', (register) => {
    const names = new Set(LIST_FIELDS[register].filter((field) => field.shows).map((field) => field.name))
    expect(REGISTER_COLUMNS[register].filter((name) => !names.has(name))).toEqual([])
    expect(fieldIn(LIST_FIELDS[register], REGISTER_COLUMNS[register][0]!)!.sorts).toBe(true)
    expect(new Set(LIST_FIELDS[register].map((field) => field.name)).size).toBe(LIST_FIELDS[register].length)
  })

  test('what is only shown cannot be asked for, and what is for those who pay is not there for others', () => {
    expect(parseAsk('parts', 'stock=3').wrong).toEqual(['stock'])
    const others = listFieldsFor('vendors', () => false)
    expect(parseAsk('vendors', 'iban=IE&columns=name,iban&sort=iban', others).wrong.sort()).toEqual(['columns', 'iban', 'sort'])
    expect(parseAsk('vendors', 'iban=IE').wrong).toEqual([])
  })
})

describe('chips', () => {
  const say = (name: string, text: string, kind: ListKind = 'orders') => {
    const field = fieldIn(LIST_FIELDS[kind], name)!
    return clauseWords(
      field,
      parseClause(field, text)!,
      ({ label }, id) => `${label} ${id}`,
      (_, value) => formatMinor(value),
    )
  }
  test('say what is asked, in words', () => {
    expect(say('state', 'ready')).toBe('State: Ready')
    expect(say('state', 'ready,dispatched,on_hold')).toBe('State: Ready, Dispatched or On hold')
    expect(say('priority', '!deferred,routine')).toBe('Priority: not Deferred nor Routine')
    expect(say('warrantyUntil', '..60d', 'assets')).toBe('Warranty until: up to in 60 days')
    expect(say('place', '12')).toBe('Place: Place 12')
    expect(say('estimate', '50000..')).toBe('Estimate: from 500.00')
    expect(say('finished', '-30d..today')).toBe('Finished: 30 days ago to today')
    expect(say('finished', '..2026-11-30')).toBe('Finished: up to 30 Nov 2026')
    expect(say('team', 'none')).toBe('Team: none')
    expect(say('summary', '!tap')).toBe('Summary: without “tap”')
    expect(say('archived', 'yes')).toBe('Archived: yes')
    expect(dayWords('1d')).toBe('in 1 day')
    expect(formatClause({ field: 'due', from: 'today', to: 'today' })).toBe('today')
  })
})

describe('days', () => {
  test('are those of the site, also on the nights the clocks change (IANA time zone data, Europe/Dublin)', () => {
    // 25 October 2026 has 25 hours there, 29 March 2026 has 23.
    const hours = (day: string) => (endOfDay(day, NOW, DUBLIN).getTime() - startOfDay(day, NOW, DUBLIN).getTime()) / 3_600_000
    expect(hours('2026-10-25')).toBe(25)
    expect(hours('2026-03-29')).toBe(23)
    expect(hours('today')).toBe(24)
    expect(calendarDay('today', NOW, DUBLIN)).toBe('2026-11-25')
    expect(startOfDay('2026-07-01', NOW, DUBLIN).toISOString()).toBe('2026-06-30T23:00:00.000Z')
  })

  test('a day counted from today is the calendar’s, whatever the hours between', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2024-01-01'), max: new Date('2028-12-31'), noInvalidDate: true }),
        fc.integer({ min: -900, max: 900 }),
        (now, days) => {
          const text = `${days}d`
          const expected = DateTime.fromJSDate(now, { zone: DUBLIN }).startOf('day').plus({ days })
          expect(startOfDay(text, now, DUBLIN).getTime()).toBe(expected.toMillis())
          expect(endOfDay(text, now, DUBLIN).getTime()).toBe(startOfDay(`${days + 1}d`, now, DUBLIN).getTime())
        },
      ),
    )
  })

  test.each(['2026-02-30', '2026-13-01', 'yesterday', '+30d', '-d', '--3d', ''])('“%s” is no day', (text) => {
    expect(isDay(text)).toBe(false)
    expect(() => startOfDay(text, NOW, DUBLIN)).toThrow(RangeError)
  })
})

describe('cells', () => {
  test('no spreadsheet takes the text of a cell for a formula (OWASP, CSV Injection; from memory)', () => {
    for (const text of ['=1+1', '+353 91', '-2', '@SUM(A1)', '\t=1', '\r=1', '=cmd|"/c calc"!A0']) expect(safeCell(text)).toBe(`'${text.replace('\r', '\n')}`)
    for (const text of ['Tap drips', '3 - 4', 'a=b', '', ' =1']) expect(safeCell(text)).toBe(text)
    fc.assert(fc.property(fc.string(), (text) => !/^[=+\-@\t\r\n]/.test(safeCell(text))))
  })
})

describe('spelling', () => {
  const spelling = new Spelling()
  for (const text of [
    'Chiller trips on high pressure',
    'Chiller is noisy',
    'Dripping tap',
    'Radiator stays cold',
    'The compressor of the chiller',
    'Chilled water',
    'Odalys Brannigan',
  ])
    spelling.learn(text)

  test.each([
    ['chillr', 'chiller'],
    ['chiler', 'chiller'],
    ['presure', 'pressure'],
    ['radaitor', 'radiator'],
    ['compresser', 'compressor'],
    ['brannigen', 'brannigan'],
    ['watre', 'water'],
    ['tsays', 'stays'],
  ])('%s was meant as %s', (typed, meant) => expect(spelling.mend(typed)).toBe(meant))

  test('what was written stays, what is too short, a number or like nothing too', () => {
    for (const word of ['chiller', 'comp', 'tap', 'w-31207', '31207', 'xylophone', 'ch']) expect(spelling.mend(word)).toBe(word)
  })
})
