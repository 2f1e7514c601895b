import fc from 'fast-check'
import { CONDITIONS, COVERS, CRITICALITIES, UNIFORMAT } from '#core/assets'
import { COBIE_SHEET_NAMES, cobieColumns, dayIn, durationIn, readCobie, untilOf, warrantyDays, writeCobie, yearsOf } from '#core/cobie'
import type { CobieAsset, CobieBuilding, CobieKnown, CobieTables, ReadCobie } from '#core/cobie'

const building = (assets: CobieAsset[], more: Partial<CobieBuilding> = {}): CobieBuilding => ({
  site: { name: 'Skerry Sound', currency: 'EUR' },
  building: { code: 'PUM', name: 'Pump House' },
  floors: [{ code: 'PUM-0', name: 'Lower floor' }],
  spaces: [
    { code: 'PUM-001', name: 'Pump hall', floor: 'PUM-0', payer: '5800', area: 42.5 },
    { code: 'PUM-X', name: 'Yard', floor: 'PUM', payer: null, area: null },
  ],
  payers: [{ code: '5800', name: 'Estates' }],
  assets,
  vendors: [{ name: 'Northbay Cooling', email: 'jobs@northbay.example', phone: '+353 91 555 0101' }],
  parts: [{ code: 'P-1', name: 'Belt', unit: 'each' }],
  equipment: [{ code: 'EQ-1', name: 'Ladder' }],
  jobs: [{ name: 'Service', tag: 'CH-1', rule: 'FREQ=MONTHLY;INTERVAL=3', startsOn: '2026-01-01' }],
  documents: [{ title: 'Manual', kind: 'manual', file: 'manual.pdf', on: 'assets', code: 'CH-1' }],
  own: [],
  ...more,
})
const plain: CobieAsset = {
  tag: 'CH-1',
  name: 'Chiller',
  classCode: 'D3030',
  condition: null,
  criticality: null,
  owner: 'us',
  maker: 'Northcold',
  model: 'NO-550',
  serial: 'S-1',
  installedOn: null,
  priceMinor: null,
  lifeYears: null,
  warrantyFrom: null,
  warrantyUntil: null,
  warrantyCovers: null,
  warrantyTerms: null,
  note: null,
  space: 'PUM-001',
  parent: null,
  vendor: null,
}
/** What would be known after this building had been entered. */
const knownOf = (it: CobieBuilding): CobieKnown => ({
  currency: it.site.currency,
  places: [
    { id: 1, code: it.building.code, name: it.building.name, kind: 'building', on: 'SKE', payer: null },
    ...it.floors.map((floor, index) => ({ id: 10 + index, ...floor, kind: 'floor', on: it.building.code, payer: null })),
    ...it.spaces.map(({ code, name, floor, payer }, index) => ({ id: 100 + index, code, name, kind: 'space', on: floor, payer })),
  ],
  assets: it.assets.map((asset, index) => ({ id: 1_000 + index, ...asset })),
  vendors: it.vendors.map((vendor, index) => ({ id: index + 1, ...vendor })),
  people: ['maren@skerry.example'],
  payers: [{ id: 1, code: '5800' }],
  parts: [{ id: 1, code: 'P-1', name: 'Belt' }],
  equipment: [{ id: 1, code: 'EQ-1', name: 'Ladder' }],
  ownFields: [
    { id: 5, kind: 'assets', label: 'Refrigerant', shape: 'choice', unit: null, choices: [{ key: 'r_290', name: 'R-290' }] },
    { id: 6, kind: 'assets', label: 'Charge', shape: 'number', unit: 'kg', choices: [] },
    { id: 7, kind: 'places', label: 'Animals inside', shape: 'flag', unit: null, choices: [] },
    { id: 8, kind: 'assets', label: 'Checked', shape: 'date', unit: null, choices: [] },
    { id: 9, kind: 'places', label: 'Key holder', shape: 'person', unit: null, choices: [] },
  ],
  own: {},
  retired: ['asset ch-9', 'place pum-9', 'part p-9', 'vendor gone@vendor.example'],
  jobs: it.jobs.map((job, index) => ({ id: index + 1, ...job })),
  documents: ['manual ch-1'],
  today: '2026-11-26',
  files: null,
})
const by = { email: 'maren@skerry.example' }
const written = (it: CobieBuilding) => writeCobie(it, by, '2026-11-26T10:30:00')
const readBack = (tables: CobieTables, known: CobieKnown, keep = false): ReadCobie => {
  const read = readCobie(tables, known, keep)
  if ('wrong' in read) throw new Error(read.wrong)
  return read
}
const empty = (it: CobieBuilding): CobieKnown => ({ ...knownOf(it), places: [], assets: [], vendors: [], parts: [], equipment: [] })
const changes = (tables: CobieTables, known: CobieKnown) =>
  readBack(tables, known).rows.map(({ sheet, name, standing, sentences }) => [sheet, name, standing, sentences.join(' ')])

const line = fc.stringMatching(/^[A-Za-z][A-Za-z0-9 .&]{0,18}[A-Za-z0-9]$/).filter((text) => !/^(n\/?a|none)$/i.test(text))
const day = fc.integer({ min: 0, max: 12_000 }).map((days) => new Date(Date.UTC(2000, 0, 1 + days)).toISOString().slice(0, 10))
const maybe = <T>(one: fc.Arbitrary<T>) => fc.option(one, { nil: null })
const asset = fc
  .record({
    name: line,
    classCode: maybe(fc.constantFrom(...Object.keys(UNIFORMAT))),
    condition: maybe(fc.constantFrom(...CONDITIONS)),
    criticality: maybe(fc.constantFrom(...CRITICALITIES)),
    maker: maybe(line),
    model: maybe(line),
    installedOn: maybe(day),
    priceMinor: maybe(fc.integer({ min: 0, max: 1_000_000_00 })),
    lifeYears: maybe(fc.integer({ min: 0, max: 200 })),
    warrantyFrom: maybe(day),
    lasts: maybe(fc.integer({ min: 0, max: 4_000 })),
    warrantyCovers: maybe(fc.constantFrom(...COVERS)),
    warrantyTerms: maybe(line),
    note: maybe(line),
    space: fc.constantFrom('PUM-001', 'PUM-X'),
    vendor: maybe(fc.constant('Northbay Cooling')),
  })
  .map(({ lasts, ...one }) => {
    const warrantyUntil = lasts === null ? null : new Date(Date.parse(one.warrantyFrom ?? '2020-01-01') + lasts * 86_400_000).toISOString().slice(0, 10)
    return { ...plain, ...one, warrantyUntil }
  })
const assets = fc
  .array(asset, { minLength: 1, maxLength: 12 })
  .map((all) => all.map((one, index): CobieAsset => ({ ...one, tag: `A-${index}`, serial: `S-${index}`, parent: index % 3 === 2 ? `A-${index - 1}` : null })))

test('whatever the assets are like: out, and in again, changes nothing', () => {
  fc.assert(
    fc.property(assets, (all) => expect(changes(written(building(all)), knownOf(building(all)))).toEqual([])),
    { numRuns: 150 },
  )
})

test('into an empty register, the same comes out again', () => {
  fc.assert(
    fc.property(assets, (all) => {
      const it = building(all)
      const { writes, rows } = readBack(written(it), empty(it))
      expect(rows.filter(({ standing }) => standing === 'bad')).toEqual([])
      const made = writes.assets.map(({ tag, fields }) => ({ ...plain, classCode: null, maker: null, model: null, serial: null, ...fields, tag }))
      // A warranty whose parts and labour nobody told of is told by its end alone.
      expect(made).toEqual(all.map((one) => (one.warrantyCovers && warrantyDays(one) === null ? { ...one, warrantyCovers: null } : one)))
      expect(writes.building).toMatchObject({ code: 'PUM', name: 'Pump House' })
      expect(writes.spaces.map(({ code, floor }) => [code, floor])).toEqual([
        ['PUM-001', 'PUM-0'],
        ['PUM-X', 'PUM'],
      ])
    }),
    { numRuns: 150 },
  )
})

test('every sheet has the columns of the standard, and every row a cell for each', () => {
  const tables = written(building([plain]))
  expect(Object.keys(tables)).toEqual(COBIE_SHEET_NAMES)
  for (const sheet of COBIE_SHEET_NAMES) {
    expect(tables[sheet][0]).toEqual(cobieColumns(sheet))
    for (const row of tables[sheet]) expect(row).toHaveLength(cobieColumns(sheet).length)
  }
  const cell = (sheet: keyof typeof tables, column: string) => tables[sheet][1]![tables[sheet][0]!.indexOf(column)]
  expect([cell('Space', 'NetArea'), cell('Type', 'Category'), cell('Job', 'Frequency'), cell('Job', 'FrequencyUnit'), cell('Zone', 'SpaceNames')]).toEqual([
    '42.50',
    'D3030: Cooling generating systems',
    '3',
    'month',
    'PUM-001',
  ])
})

test('durations end a day before their turn, in whatever unit', () => {
  const until = (from: string, length: number, unit: string) => untilOf(from, durationIn(length, unit)!)
  expect([
    until('2026-05-01', 2, 'Year'),
    until('2026-05-01', 24, 'months'),
    until('2024-02-29', 1, 'year'),
    until('2026-01-01', 1, 'day'),
    until('2026-01-01', 2, 'WEEKS'),
  ]).toEqual(['2028-04-30', '2028-04-30', '2025-02-27', '2026-01-01', '2026-01-14'])
  expect(durationIn(1, 'fortnight')).toBeNull()
  expect([yearsOf({ length: 180, unit: 'month' }), yearsOf({ length: 3_653, unit: 'day' }), yearsOf({ length: 7, unit: 'year' })]).toEqual([15, 10, 7])
  expect(warrantyDays({ warrantyFrom: '2026-05-01', warrantyUntil: '2026-05-01' })).toBe(1)
})

test('days are read as ISO 8601 or as workbooks count them', () => {
  // 46143 is 1 May 2026 by the 1900 date system of ECMA-376 (from memory).
  expect(['2026-05-01', '2026-05-01T23:59:59', '46143', '46143.5', '2026-02-30', 'soon', ''].map(dayIn)).toEqual([
    '2026-05-01',
    '2026-05-01',
    '2026-05-01',
    '2026-05-01',
    null,
    null,
    null,
  ])
})

describe('own fields and what is no field', () => {
  const withAttributes = (...rows: string[][]): CobieTables => {
    const tables = written(building([plain]))
    return { ...tables, Attribute: [['Name', 'SheetName', 'RowName', 'Value'], ...rows] }
  }
  const known = knownOf(building([plain]))

  test('values are read by the shape of their field; what does not fit says why', () => {
    const { rows, writes } = readBack(
      withAttributes(
        ['refrigerant', 'Component', 'CH-1', 'R-290'],
        ['Charge', 'component', 'CH-1', '12.5'],
        ['Animals inside', 'Space', 'PUM-001', 'Yes'],
        ['Checked', 'Component', 'CH-1', '46143'],
        ['Charge', 'Component', 'CH-1', 'plenty'],
        ['Key holder', 'Space', 'PUM-001', 'Maren Quill'],
        ['Condition', 'Component', 'CH-1', 'Shiny'],
        ['Part of', 'Component', 'CH-1', 'ch-1'],
        ['Belongs to', 'Component', 'CH-1', 'The payer'],
        ['Condition', 'Space', 'PUM-999', 'Good'],
        ['Load', 'Assembly', 'CH-1', '5'],
        ['', 'Component', 'CH-1', '5'],
      ),
      known,
    )
    expect(writes.own.map(({ fieldId, code, value }) => [fieldId, code, value])).toEqual([
      [7, 'PUM-001', 1],
      [5, 'CH-1', 'r_290'],
      [6, 'CH-1', 12.5],
      [8, 'CH-1', '2026-05-01'],
    ])
    expect(rows.map(({ line: at, standing }) => [at, standing]).sort((a, b) => Number(a[0]) - Number(b[0]))).toEqual([
      [2, 'changed'],
      [3, 'changed'],
      [4, 'changed'],
      [5, 'changed'],
      [6, 'bad'],
      [7, 'left'],
      [8, 'bad'],
      [9, 'bad'],
      [10, 'left'],
      [11, 'bad'],
      [12, 'left'],
      [13, 'bad'],
    ])
  })

  test('what stands there already is the same; what is unknown is offered, and kept when wished', () => {
    const tables = withAttributes(['Refrigerant', 'Component', 'CH-1', 'R-290'], ['Hue', 'Component', 'CH-1', 'Grey'])
    const there: CobieKnown = { ...known, own: { 5: { 'CH-1': 'R-290' } } }
    const looked = readBack(tables, there)
    expect(looked.rows.map(({ name, standing }) => [name, standing])).toEqual([['Hue, CH-1', 'left']])
    expect(looked.unknown).toEqual([{ label: 'Hue', on: 'assets', rows: 1 }])
    expect(readBack(tables, there, true).writes.own).toEqual([{ kind: 'assets', code: 'CH-1', fieldId: null, label: 'Hue', value: 'Grey' }])
  })
})

test('what is said in other letters is the same; n/a and empty leave what is there', () => {
  const it = building([{ ...plain, note: 'Keep' }])
  const tables = written(it)
  const lower = Object.fromEntries(
    Object.entries(tables).map(([sheet, [heading, ...rows]]) => [sheet, [heading!.map((cell) => cell.toLowerCase()), ...rows]]),
  ) as CobieTables
  expect(changes(lower, knownOf(it))).toEqual([])
  const bare: CobieTables = {
    Facility: tables.Facility,
    Floor: tables.Floor,
    Space: tables.Space,
    Component: [
      ['Name', 'Space'],
      ['ch-1', 'pum-001'],
      ['', 'n/a'],
    ],
  }
  expect(changes(bare, knownOf(it))).toEqual([])
})

describe('systems, jobs and documents', () => {
  const it = building([plain, { ...plain, tag: 'CP-1', serial: 'S-2' }, { ...plain, tag: 'CP-2', serial: 'S-3' }])
  const read = (sheets: CobieTables, more: Partial<CobieKnown> = {}, keep = false) => readBack({ ...written(it), ...sheets }, { ...knownOf(it), ...more }, keep)
  const told = ({ rows }: ReadCobie, sheet: string) =>
    rows.filter((row) => row.sheet === sheet).map(({ name, standing, sentences }) => [name, standing, sentences.join(' ')])
  const systems = (...rows: string[][]): CobieTables => ({ System: [['Name', 'ComponentNames'], ...rows] })

  test('a system called as a component is what the others are part of; one thing in one other, and never in a ring', () => {
    const found = read(systems(['CH-1', 'ch-1, CP-1'], ['CP-1', 'CP-1,CP-2,CH-1'], ['CH-1', 'CP-2,CP-9']))
    expect(found.writes.assets.map(({ tag, fields }) => [tag, fields.parent])).toEqual([
      ['CP-1', 'CH-1'],
      ['CP-2', 'CP-1'],
    ])
    expect(told(found, 'System')).toEqual([
      ['CP-1', 'bad', 'CP-1 is part of CH-1: it cannot be the other way round as well.'],
      ['CH-1', 'bad', 'CP-2 is part of CP-1 already. There is no component called “CP-9” in the workbook.'],
    ])
  })

  test('any other system is a fact of its components, kept when that is wished', () => {
    const sheets = systems(['Chilled water', 'CH-1,CP-1'], ['Seawater', 'CP-1'])
    expect(told(read(sheets), 'System').map(([name, standing]) => [name, standing])).toEqual([
      ['Chilled water', 'left'],
      ['Seawater', 'left'],
    ])
    expect(read(sheets).unknown).toEqual([{ label: 'System', on: 'assets', rows: 2 }])
    expect(read(sheets, {}, true).writes.own.map(({ code, label, value }) => [code, label, value])).toEqual([
      ['CH-1', 'System', 'Chilled water'],
      ['CP-1', 'System', 'Chilled water, Seawater'],
    ])
  })

  test('what would be part of a component that cannot be taken goes in without it, and says so', () => {
    const tables = written(it)
    const none: CobieKnown = { ...empty(it), jobs: [] }
    const found = readBack(
      { ...tables, Component: tables.Component.map((row) => (row[0] === 'CH-1' ? ['CH-1', '', '', '', 'NOWHERE'] : row)), ...systems(['CH-1', 'CH-1,CP-1']) },
      none,
    )
    expect(found.writes.assets.map(({ tag, fields }) => [tag, fields.parent])).toEqual([
      ['CP-1', undefined],
      ['CP-2', undefined],
    ])
    expect(told(found, 'Component')[1]![2]).toBe('It is not made part of CH-1, which cannot be taken.')
  })

  test('jobs that come round are plans, for one component or all of a type', () => {
    const jobs = (...rows: string[][]): CobieTables => ({
      Job: [['Name', 'TypeName', 'Start', 'TaskStartUnit', 'Frequency', 'FrequencyUnit', 'TaskNumber'], ...rows],
    })
    const type = written(it).Type[1]![0]!
    const found = read(
      jobs(
        ['Service', 'n/a', '2026-02-01', 'n/a', '3', 'month', 'CH-1'],
        ['service', 'n/a', 'n/a', 'n/a', '6', 'Months', 'CH-1'],
        ['Bearings', type, '2', 'weeks', '1', 'year', 'n/a'],
        ['Once', type, 'n/a', 'n/a', 'n/a', 'n/a', 'n/a'],
        ['Often', type, 'n/a', 'n/a', '0.5', 'day', 'n/a'],
        ['Hourly', type, 'n/a', 'n/a', '2', 'hour', 'n/a'],
        ['Soon', type, 'soon', 'n/a', '2', 'day', 'n/a'],
        ['Nobody', 'Unheard of', 'n/a', 'n/a', '2', 'day', 'CH-7'],
        ['', type],
      ),
    )
    expect(found.writes.jobs).toEqual([
      { id: 1, name: 'service', tag: 'CH-1', rule: 'FREQ=MONTHLY;INTERVAL=6', startsOn: '2026-01-01' },
      ...['CH-1', 'CP-1', 'CP-2'].map((tag) => ({ id: null, name: 'Bearings', tag, rule: 'FREQ=YEARLY;INTERVAL=1', startsOn: '2026-12-10' })),
    ])
    expect(told(found, 'Job').map(([name, standing]) => [name, standing])).toEqual([
      ['service', 'changed'],
      ['Bearings', 'new'],
      ['Once', 'left'],
      ['Often', 'bad'],
      ['Hourly', 'bad'],
      ['Soon', 'bad'],
      ['Nobody', 'bad'],
      ['', 'bad'],
    ])
    expect(told(found, 'Job')[0]![2]).toBe('CH-1: every 3 months becomes every 6 months.')
  })

  test('documents are kept when their file came along: found as their row says, or by a name only one has', () => {
    const documents = (...rows: string[][]): CobieTables => ({ Document: [['Name', 'Category', 'SheetName', 'RowName', 'Directory', 'File'], ...rows] })
    const type = written(it).Type[1]![0]!
    const sheets = documents(
      ['Manual', 'x', 'Component', 'CH-1', 'n/a', 'gone.pdf'],
      ['Wiring', 'Shop Drawings', 'component', 'ch-1', './Docs\\CH-1/', 'wiring.pdf'],
      ['Guide', 'Operation and maintenance', 'Type', type, 'n/a', 'guide.pdf'],
      ['Twice', 'x', 'Space', 'PUM-001', 'n/a', 'same.txt'],
      ['Missing', 'x', 'Facility', 'PUM', 'n/a', 'missing.pdf'],
      ['Nowhere', 'x', 'Space', 'PUM-9', 'n/a', 'guide.pdf'],
      ['Other', 'x', 'Contact', 'PUM', 'n/a', 'guide.pdf'],
    )
    const files = ['docs/ch-1/wiring.pdf', 'all/guide.pdf', 'a/same.txt', 'b/same.txt']
    const found = read(sheets, { files })
    expect(found.writes.documents.map(({ title, kind, path, on, code }) => [title, kind, path, on, code])).toEqual([
      ['Wiring', 'drawing', 'docs/ch-1/wiring.pdf', 'assets', 'CH-1'],
      ...['CH-1', 'CP-1', 'CP-2'].map((code) => ['Guide', 'manual', 'all/guide.pdf', 'assets', code]),
    ])
    expect(told(found, 'Document').map(([name, standing]) => [name, standing])).toEqual([
      ['Wiring', 'new'],
      ['Guide', 'new'],
      ['Twice', 'bad'],
      ['Missing', 'bad'],
      ['Nowhere', 'bad'],
      ['Other', 'left'],
    ])
    expect(told(read(sheets), 'Document')[0]).toEqual(['Wiring', 'left', expect.stringContaining('did not come along') as string])
  })
})

test('what is retired is not made a second time: its row says so, and the others go in', () => {
  const it = building([plain])
  const tables = written(it)
  const told = changes(
    {
      ...tables,
      Contact: [
        ['Email', 'Company'],
        ['gone@vendor.example', 'Gone Ltd'],
      ],
      Space: [...tables.Space, ['PUM-9', '', '', '', 'PUM-0']],
      Component: [
        ['Name', 'Space'],
        ['CH-9', 'PUM-001'],
        ['CH-10', 'PUM-001'],
      ],
      Spare: [['Name'], ['P-9']],
    },
    knownOf(it),
  )
  expect(told.map(([sheet, name, standing]) => [sheet, name, standing])).toEqual([
    ['Contact', 'gone@vendor.example', 'left'],
    ['Space', 'PUM-9', 'bad'],
    ['Component', 'CH-9', 'bad'],
    ['Component', 'CH-10', 'new'],
    ['Spare', 'P-9', 'left'],
  ])
})

test('a workbook of no building, of two, and one whose building is something else', () => {
  expect(readCobie({}, knownOf(building([])), false)).toMatchObject({ wrong: expect.stringContaining('no Facility') as string })
  const two = { Facility: [['Name'], ['A'], ['B']] }
  expect(readCobie(two, knownOf(building([])), false)).toMatchObject({ wrong: expect.stringContaining('2 facilities') as string })
  expect(changes({ Facility: [['Name'], ['PUM-0']], Floor: [['Name'], ['F']] }, knownOf(building([])))).toEqual([
    ['Facility', 'PUM-0', 'bad', 'PUM-0 is a floor here, not a building.'],
    ['Floor', 'F', 'bad', 'Its building cannot be taken.'],
  ])
})

test('whatever stands in the cells, every row is told of and nothing is thrown', () => {
  const cell = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('n/a', 'PUM', 'PUM-0', 'PUM-001', 'CH-1', '1900-12-31T23:59:59', '-1', '1e9'))
  fc.assert(
    fc.property(fc.array(fc.array(cell, { maxLength: 14 }), { maxLength: 5 }), (rows) => {
      const tables = Object.fromEntries(
        COBIE_SHEET_NAMES.filter((sheet) => sheet !== 'Facility').map((sheet) => [sheet, [cobieColumns(sheet), ...rows]]),
      ) as CobieTables
      const { counts } = readBack({ ...tables, Facility: [['Name'], ['PUM']] }, knownOf(building([plain])))
      return Object.values(counts).every((each) => Object.values(each).every((n) => n >= 0))
    }),
  )
})
