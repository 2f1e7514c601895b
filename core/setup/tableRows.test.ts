import fc from 'fast-check'
import { matchColumns as match, matchingReasons as reasonsIn, NOTHING_KNOWN, sortRows as sort, tableFields } from '#core/setup'
import type { CellTerms, KnownRecords, Matching, TableKind, TableRow } from '#core/setup'

const TERMS: CellTerms = { sign: '.', currency: 'EUR', monthFirst: false, today: '2026-11-23' }
const matchColumns = (kind: TableKind, headings: string[]) => match(tableFields(kind), headings)
const matchingReasons = (kind: TableKind, matching: Matching) => reasonsIn(tableFields(kind), matching)
const sortRows = (kind: TableKind, rows: TableRow[], known: KnownRecords) => sort({ kind, fields: tableFields(kind), known, terms: TERMS }, rows)

const known: KnownRecords = {
  ...NOTHING_KNOWN,
  records: {
    tid: { code: 'TID', name: 'Tidehall', kind: 'building', parent: '', access: '', payer: '' },
    'a@b.example': { name: 'Ada', email: 'a@b.example', phone: '1', extension: '', title: '', place: 'TID', payer: '5100' },
  },
  placeKinds: { ske: 'site', tid: 'building', 'tid-1': 'floor' },
  payers: ['5100'],
  elsewhere: ['far@b.example'],
}
const row = (line: number, fields: Record<string, string>): TableRow => ({ line, cells: Object.values(fields), fields })
const place = (line: number, code: string, kind: string, parent = '', more: Record<string, string> = {}) =>
  row(line, { code, name: `${code} name`, kind, parent, ...more })

describe('columns', () => {
  test('are matched by our names first, then by what others call them, each field once', () => {
    expect(matchColumns('people', ['Job title', 'E-Mail', 'Full Name', 'Name', 'Ext.', 'Shoe size'])).toEqual([
      'title',
      'email',
      null,
      'name',
      'extension',
      null,
    ])
    expect(matchColumns('places', ['ROOM CODE', 'room name', 'Type', 'Floor', 'Building'])).toEqual(['code', 'name', 'kind', 'parent', null])
  })

  test('whatever the headings, no field is filled twice', () => {
    const headings = fc.array(fc.constantFrom(...tableFields('people').flatMap((one) => [one.name, one.code, ...one.also]), 'else'), { maxLength: 14 })
    fc.assert(
      fc.property(headings, (all) => {
        const filled = matchColumns('people', all).filter(Boolean)
        expect(new Set(filled).size).toBe(filled.length)
      }),
    )
  })

  test('a needed field without a column and one with two are said', () => {
    expect(matchingReasons('people', ['name', null])).toEqual(['No column is Mail address. Choose which one it is.'])
    expect(matchingReasons('people', ['name', 'email', 'email'])).toEqual(['Two columns are Mail address. Choose one.'])
    expect(matchingReasons('places', ['code', 'name', 'kind'])).toEqual([])
  })
})

describe('people', () => {
  const person = (line: number, email: string, more: Record<string, string> = {}) => row(line, { name: 'Ada', email, ...more })

  test('are new, changed or the same by their mail address, whatever its case; an empty cell changes nothing', () => {
    const read = sortRows('people', [person(2, 'A@B.example', { phone: '' }), person(3, 'new@b.example')], known)
    expect([read.fresh.length, read.changed.length, read.same, read.bad.length]).toEqual([1, 0, 1, 0])
    expect(sortRows('people', [person(2, 'a@b.example', { phone: '2' })], known).changed).toHaveLength(1)
    expect(sortRows('people', [person(2, 'a@b.example', { place: 'tid', payer: '5100' })], known).same).toBe(1)
  })

  test('a bad row says everything that is wrong with it', () => {
    const { bad } = sortRows('people', [row(2, { name: '', email: 'none', place: 'NO-1', payer: '9', phone: 'x'.repeat(41) })], known)
    expect(bad[0]!.sentences).toEqual([
      'Name is missing.',
      'Phone is longer than 40 characters.',
      'none is no mail address.',
      'There is no place NO-1.',
      'There is no payer 9.',
    ])
    expect(sortRows('people', [person(2, 'far@b.example')], known).bad[0]!.sentences).toEqual(['far@b.example belongs to somebody of another site.'])
  })
})

describe('what two rows, or a row and what is there, have in common', () => {
  const person = (line: number, email: string) => row(line, { name: 'Ada', email })

  test('the same key twice is said at the second, with the line of the first', () => {
    expect(sortRows('people', [person(2, 'x@b.example'), person(5, 'X@b.example')], known).bad.map((one) => [one.line, ...one.sentences])).toEqual([
      [5, 'Line 2 is the same mail address.'],
    ])
    expect(sortRows('places', [place(2, 'N', 'building'), place(3, 'n', 'building')], known).bad[0]!.sentences).toEqual(['Line 2 is the same code.'])
    expect(sortRows('people', [row(2, { name: 'A', email: '' }), row(3, { name: 'B', email: '' })], known).bad.map((one) => one.sentences)).toEqual([
      ['Mail address is missing.'],
      ['Mail address is missing.'],
    ])
  })

  test('two that differ by an accent alone cannot both be: the database reads them alike', () => {
    const people = sortRows('people', [person(2, 'zoe@b.example'), person(3, 'zoé@b.example')], known)
    expect(people.bad.map((one) => one.sentences)).toEqual([
      ['ZOÉ@B.EXAMPLE and ZOE@B.EXAMPLE differ by an accent alone. Give one of them another mail address.'],
    ])
    expect(sortRows('places', [place(2, 'tíd', 'building')], known).bad[0]!.sentences).toEqual([
      'TÍD and TID differ by an accent alone. Give one of them another code.',
    ])
    expect(sortRows('places', [place(2, 'STRAß', 'building'), place(3, 'STRAS', 'building')], known).bad).toHaveLength(1)
    expect(sortRows('people', [person(2, 'x@b.example'), person(3, 'y@b.example')], known).bad).toEqual([])
  })
})

describe('places', () => {
  test('come parents first, in whatever order the rows stand', () => {
    const rows = [place(2, 'N-101', 'space', 'N-1'), place(3, 'N-1', 'floor', 'N'), place(4, 'N', 'building')]
    expect(sortRows('places', rows, known).fresh.map((one) => one.fields.code)).toEqual(['N', 'N-1', 'N-101'])
  })

  test('kinds stand where they belong', () => {
    const wrong = (kind: string, parent: string) => sortRows('places', [place(2, 'X', kind, parent)], known).bad[0]?.sentences[0]
    expect(wrong('floor', 'TID')).toBeUndefined()
    expect(wrong('floor', 'TID-1')).toBe('A floor is in a building; TID-1 is a floor.')
    expect(wrong('space', '')).toBe('Say which building or floor or space or grounds it is in.')
    expect(wrong('attic', 'TID')).toBe('attic is no kind of place. It is one of building, floor, space, grounds.')
    expect(wrong('space', 'GONE')).toBe('There is no place GONE to be in.')
  })

  test('what is there keeps its kind and stays where it is', () => {
    const { bad } = sortRows('places', [place(2, 'tid', 'floor', 'TID')], known)
    expect(bad[0]!.sentences[0]).toBe('tid is a building here; a table cannot make it a floor.')
    const there: KnownRecords = {
      ...known,
      records: { ...known.records, 'tid-1': { code: 'TID-1', name: 'Ground', kind: 'floor', parent: 'TID', access: '', payer: '5100' } },
    }
    const read = (more: Record<string, string>) =>
      sortRows('places', [row(2, { code: 'tid-1', name: 'Ground', kind: 'Floor', parent: 'tid', payer: '5100', ...more })], there)
    expect([read({}).same, read({ parent: '' }).same, read({ name: 'ground' }).changed.length, read({ access: 'Key 3' }).changed.length]).toEqual([1, 1, 1, 1])
    expect(read({ parent: 'SKE' }).bad[0]!.sentences[0]).toBe('tid-1 is in TID here; a table cannot move it.')
    expect(sortRows('places', [place(2, 'TID', 'building', 'SKE')], known).bad[0]!.sentences[0]).toBe('TID is in the site here; a table cannot move it.')
    expect(sortRows('places', [row(2, { code: 'Q', name: 'Q', kind: '' })], known).bad[0]!.sentences).toEqual(['Kind is missing.'])
    expect(sortRows('places', [row(2, { code: 'Q', name: 'x'.repeat(120), kind: 'building', parent: '' })], known).fresh).toHaveLength(1)
  })

  test('two that are in each other, and what is in a bad one, are bad', () => {
    const circle = sortRows('places', [place(2, 'A', 'space', 'B'), place(3, 'B', 'floor', 'A')], known)
    expect(circle.fresh).toEqual([])
    expect(circle.bad.map((one) => one.line)).toEqual([2, 3])
    const below = sortRows('places', [place(2, 'N', 'building', '', { payer: '77' }), place(3, 'N-1', 'floor', 'N')], known)
    expect(below.bad.map((one) => one.sentences[0])).toEqual(['There is no payer 77.', 'N, which it is in, is not taken.'])
  })

  test('every row is counted once', () => {
    const code = fc.constantFrom('A', 'B', 'C', 'TID')
    const rows = fc.array(fc.record({ code, kind: fc.constantFrom('building', 'floor', 'space'), parent: fc.constantFrom('', 'A', 'B', 'TID') }), {
      maxLength: 12,
    })
    fc.assert(
      fc.property(rows, (all) => {
        const read = sortRows(
          'places',
          all.map((one, index) => place(index + 2, one.code, one.kind, one.parent)),
          known,
        )
        expect(read.fresh.length + read.changed.length + read.same + read.bad.length).toBe(all.length)
      }),
    )
  })
})
