import { read, utils, write } from '@e965/xlsx'
import type { WorkBook } from '@e965/xlsx'
import { zipSync } from 'fflate'
import { readAsset } from '#contract/assets'
import { giveCobie, listCobieBuildings, takeCobie } from '#contract/cobie'
import type { CobieReport } from '#contract/cobie'
import { listDocuments, listDocumentsOf } from '#contract/documents'
import { readOwn } from '#contract/own'
import { readPortraitTimeline } from '#contract/portraits'
import { COBIE_SHEET_NAMES, cobieColumns } from '#core/cobie'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** COBie workbooks: out and in again, looked at before they are taken, good rows alone, by those who may. */
let house: House
let server: Running
let maren: Client
let tobias: Client
let admin: Client
/** Of the second site alone. */
let yusuf: Client

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const buildings: Record<string, number> = {}

beforeAll(async () => {
  house = await House.open('cobie')
  const { site } = await one<{ site: number }>("SELECT site_id AS site FROM place WHERE code = 'HAT'")
  const only = (name: string, siteId: number) =>
    house.rows("UPDATE account_role SET site_id = ? WHERE role <> 'technician' AND account_id = (SELECT id FROM account WHERE email = ?)", [
      siteId,
      `${name}@skerry.example`,
    ])
  await only('maren.quill', 1)
  await only('yusuf.adeyemi-rourke', site)
  server = await house.start()
  const as = (name: string) => new Client(server.url).signIn(name)
  ;[maren, tobias, admin, yusuf] = await Promise.all([as('maren.quill'), as('tobias.achterberg'), as('wendeline.stroud'), as('yusuf.adeyemi-rourke')])
  for (const row of (await admin.must(listCobieBuildings, {})).rows) buildings[row.code] = row.id
})
afterAll(() => house?.close())

const give = async (code: string, who = maren): Promise<WorkBook> => {
  const response = await fetch(`${server.url}/api/cobie/buildings/${buildings[code]}`, { headers: { Cookie: (who as unknown as { cookie: string }).cookie } })
  expect(response.status).toBe(200)
  // Read by another spreadsheet library than the one that wrote it.
  return read(Buffer.from(await response.arrayBuffer()))
}
type Rows = string[][]
const rowsOf = (book: WorkBook, sheet: string): Rows => utils.sheet_to_json(book.Sheets[sheet]!, { header: 1, raw: false, defval: '' })
const bookOf = (sheets: Record<string, Rows>): Blob => {
  const book = utils.book_new()
  for (const [name, rows] of Object.entries(sheets)) utils.book_append_sheet(book, utils.aoa_to_sheet(rows), name)
  return new Blob([new Uint8Array(write(book, { type: 'buffer', bookType: 'xlsx' }) as Buffer)])
}
const fileOf = (book: WorkBook) => new Blob([new Uint8Array(write(book, { type: 'buffer', bookType: 'xlsx' }) as Buffer)])
const take = (file: Blob, more: object = {}, who = maren) => who.call(takeCobie, { siteId: 1, ...more }, { file })
const sums = ({ counts }: CobieReport) =>
  Object.values(counts).reduce(
    (all, each) => ({
      new: all.new + each.new,
      changed: all.changed + each.changed,
      same: all.same + each.same,
      bad: all.bad + each.bad,
      left: all.left + each.left,
    }),
    { new: 0, changed: 0, same: 0, bad: 0, left: 0 },
  )

/** A small building as an architect's program would write it: its own headings, dates and units. */
const small = (change: (sheets: Record<string, Rows>) => void = () => undefined): Blob => {
  const sheets: Record<string, Rows> = {
    Instruction: [['Title', 'Made for a test']],
    Contact: [
      ['Email', 'CreatedBy', 'CreatedOn', 'Category', 'Company', 'Phone'],
      ['plant@boreal.example', 'n/a', 'n/a', 'Supplier', 'Boreal Plant', '+353 91 555 0999'],
      ['nobody@skerry.example', 'n/a', 'n/a', 'Owner', 'n/a', 'n/a'],
    ],
    Facility: [
      ['Name', 'Category', 'Description', 'CurrencyUnit'],
      ['NET', 'Workshop', 'Net Loft', 'EUR'],
    ],
    Floor: [
      ['Name', 'Description', 'Elevation'],
      ['NET-0', 'Ground floor', '0'],
    ],
    Space: [
      ['Name', 'FloorName', 'Description', 'RoomTag', 'GrossArea'],
      ['NET-001', 'NET-0', 'Mending room', '001', '48.5'],
      ['NET-002', 'NET-0', 'Drying room', '002', 'n/a'],
    ],
    Type: [
      [
        'Name',
        'Category',
        'Manufacturer',
        'ModelNumber',
        'WarrantyGuarantorParts',
        'WarrantyDurationParts',
        'WarrantyDurationLabor',
        'WarrantyDurationUnit',
        'ReplacementCost',
        'ExpectedLife',
        'DurationUnit',
        'Color',
      ],
      ['Dryer', 'D3050: Terminal and package units', 'Boreal', 'BD-40', 'plant@boreal.example', '2', '2', 'Year', '4200.50', '15', 'years', 'Grey'],
    ],
    Component: [
      ['Name', 'TypeName', 'Space', 'Description', 'SerialNumber', 'InstallationDate', 'WarrantyStartDate', 'TagNumber', 'Paint code'],
      ['Dryer 1', 'Dryer', 'NET-002', 'Air dryer north', 'B-1001', '2026-05-01T00:00:00', '2026-05-01', 'DRY-1', 'RAL 7035'],
      ['Dryer 2', 'Dryer', 'NET-002,NET-001', 'n/a', 'B-1002', 'n/a', 'n/a', 'DRY-2', 'n/a'],
    ],
    Attribute: [
      ['Name', 'SheetName', 'RowName', 'Value', 'Unit'],
      ['Condition', 'Component', 'Dryer 1', 'Fair', 'n/a'],
      ['Refrigerant', 'Component', 'Dryer 1', 'R-290', 'n/a'],
      ['Charge', 'Component', 'Dryer 1', '1.25', 'kg'],
    ],
    Job: [
      ['Name', 'TypeName'],
      ['Yearly look', 'Dryer'],
    ],
  }
  change(sheets)
  return bookOf(sheets)
}

describe('out', () => {
  test('the sheets and columns are those of COBie 2.4, in order, as another spreadsheet reader finds them', async () => {
    const book = await give('PUM')
    expect(book.SheetNames).toEqual(COBIE_SHEET_NAMES)
    for (const sheet of COBIE_SHEET_NAMES) expect([sheet, rowsOf(book, sheet)[0]]).toEqual([sheet, cobieColumns(sheet)])
    // By the published standard, from memory, written out by hand.
    expect(rowsOf(book, 'Component')[0]!.join(' ')).toBe(
      'Name CreatedBy CreatedOn TypeName Space Description ExtSystem ExtObject ExtIdentifier SerialNumber InstallationDate WarrantyStartDate TagNumber BarCode AssetIdentifier',
    )
    const [, chiller] = rowsOf(book, 'Component').filter(([name], index) => index === 0 || name === 'CH-1')
    expect(chiller).toEqual(expect.arrayContaining(['CH-1', 'PUM-101', 'Seawater chiller 1']))
    const keys = (sheet: string) =>
      rowsOf(book, sheet)
        .slice(1)
        .map(([name]) => name)
    for (const sheet of ['Floor', 'Space', 'Zone', 'Type', 'Component', 'System'] as const)
      expect([sheet, new Set(keys(sheet)).size]).toEqual([sheet, keys(sheet).length])
    // Everything a row names is there.
    expect(
      rowsOf(book, 'Component')
        .slice(1)
        .every((row) => keys('Type').includes(row[3]) && keys('Space').includes(row[4])),
    ).toBe(true)
  })

  test('every building, taken in again, changes nothing', async () => {
    for (const code of Object.keys(buildings)) {
      const book = await give(code, admin)
      const { site } = await one<{ site: number }>('SELECT site_id AS site FROM place WHERE id = ?', [buildings[code]])
      const { status, body } = await take(fileOf(book), { siteId: site }, admin)
      expect([code, status, body.rows, { ...sums(body), same: 0 }]).toEqual([code, 200, [], { new: 0, changed: 0, same: 0, bad: 0, left: 0 }])
    }
  })

  test('a building of another site, a floor and a stranger’s wish are not there', async () => {
    expect((await yusuf.call(giveCobie, { id: buildings.TID! })).status).toBe(404)
    expect((await yusuf.must(listCobieBuildings, {})).rows.map(({ code }) => code)).toEqual(['HAT'])
    const floor = await one<{ id: number }>("SELECT id FROM place WHERE code = 'TID-0'")
    expect((await maren.call(giveCobie, { id: floor.id })).status).toBe(404)
  })
})

describe('in', () => {
  test('looked at, nothing is taken; what would be new, changed, left and why is told by sheet and line', async () => {
    const before = await one('SELECT (SELECT count(*) FROM place) AS places, (SELECT count(*) FROM asset) AS assets, (SELECT count(*) FROM vendor) AS vendors')
    const { body } = await take(small())
    expect(body.taken).toBe(false)
    expect(body.counts.Space.new).toBe(2)
    expect(body.counts.Component.new).toBe(2)
    expect(body.counts.Contact).toMatchObject({ new: 1, left: 1 })
    expect(body.rows.find(({ sheet }) => sheet === 'Job')).toMatchObject({ line: 2, name: 'Yearly look', standing: 'left' })
    expect(body.unknown).toEqual(
      expect.arrayContaining([
        { label: 'GrossArea', on: 'places', rows: 1 },
        { label: 'Color', on: 'assets', rows: 2 },
        { label: 'Paint code', on: 'assets', rows: 1 },
      ]),
    )
    expect(
      await one('SELECT (SELECT count(*) FROM place) AS places, (SELECT count(*) FROM asset) AS assets, (SELECT count(*) FROM vendor) AS vendors'),
    ).toEqual(before)
  })

  test('taken, all of it stands in the registers with its history; the same again changes nothing', async () => {
    expect((await take(small(), { take: true, name: 'net-loft.xlsx' })).body.taken).toBe(true)
    const row = await one<{ id: number }>("SELECT id FROM asset WHERE tag = 'DRY-1'")
    const dryer = await maren.must(readAsset, { id: row.id })
    expect(dryer).toMatchObject({
      name: 'Air dryer north',
      classCode: 'D3050',
      maker: 'Boreal',
      model: 'BD-40',
      serial: 'B-1001',
      installedOn: '2026-05-01',
      priceMinor: 420_050,
      lifeYears: 15,
      warrantyFrom: '2026-05-01',
      warrantyUntil: '2028-04-30',
      warrantyCovers: 'both',
      condition: 'fair',
      owner: 'us',
    })
    expect(dryer.names).toMatchObject({ placeId: 'NET-002 Drying room', vendorId: 'Boreal Plant' })
    expect((await maren.must(readPortraitTimeline, { register: 'assets', id: row.id })).entries.map(({ kind }) => kind)).toEqual(['register.add'])
    const own = await maren.must(readOwn, { kind: 'assets', id: row.id })
    const field = (label: string) => `own${own.fields.find((one) => one.label === label)!.id}`
    expect([own[field('Refrigerant')], own[field('Charge')]]).toEqual(['r_290', 1.25])
    const path = await one<{ path: string; above: string }>(
      "SELECT p.path, (SELECT group_concat(a.code ORDER BY length(a.path)) FROM place a WHERE p.path LIKE concat(a.path, '%')) AS above FROM place p WHERE p.code = 'NET-002'",
    )
    expect(path.above).toBe('SKE,NET,NET-0,NET-002')
    // It is found like one that was entered by hand.
    expect(
      await house.rows("SELECT id FROM asset WHERE search_text LIKE '%drying room%' AND tag IN ('DRY-1', 'DRY-2') AND path = concat('/', id, '/')"),
    ).toHaveLength(2)
    const again = (await take(small())).body
    expect({ ...sums(again), same: 0, left: 0 }).toEqual({ new: 0, changed: 0, same: 0, bad: 0, left: 0 })
  })

  test('what is no field here becomes an own field when an administrator wishes it', async () => {
    expect((await take(small(), { own: true }, maren)).status).toBe(403)
    const { body } = await take(small(), { own: true, take: true }, admin)
    expect(body.taken).toBe(true)
    const row = await one<{ id: number }>("SELECT id FROM asset WHERE tag = 'DRY-1'")
    const own = await maren.must(readOwn, { kind: 'assets', id: row.id })
    const said = Object.fromEntries(own.fields.map(({ id, label }) => [label, own[`own${id}`]]))
    expect(said).toMatchObject({ Color: 'Grey', 'Paint code': 'RAL 7035' })
    expect({ ...sums((await take(small(), { own: true }, admin)).body), same: 0, left: 0 }).toEqual({ new: 0, changed: 0, same: 0, bad: 0, left: 0 })
    // And out again with the building.
    buildings.NET = (await one<{ id: number }>("SELECT id FROM place WHERE code = 'NET'")).id
    expect(rowsOf(await give('NET'), 'Attribute').some((cells) => cells.includes('Paint code') && cells.includes('RAL 7035'))).toBe(true)
  })

  test('jobs become plans and files become documents, when they come along in a ZIP; the same again changes nothing', async () => {
    const sheets = (all: Record<string, Rows>) => {
      all.Job = [
        ['Name', 'TypeName', 'Start', 'Frequency', 'FrequencyUnit', 'TaskNumber'],
        ['Filter change', 'Dryer', '2026-01-31', '1', 'month', 'n/a'],
      ]
      all.System = [
        ['Name', 'ComponentNames'],
        ['DRY-1', 'Dryer 1,Dryer 2'],
      ]
      all.Document = [
        ['Name', 'Category', 'SheetName', 'RowName', 'Directory', 'File'],
        ['Dryer handbook', 'Manual', 'Type', 'Dryer', 'papers', 'handbook.txt'],
        ['Fire report', 'Test Report', 'Space', 'NET-001', 'n/a', 'report.txt'],
      ]
    }
    const book = new Uint8Array(await small(sheets).arrayBuffer())
    const text = (words: string) => new TextEncoder().encode(words)
    const zip = (files: Record<string, Uint8Array>) => new Blob([new Uint8Array(zipSync(files))])
    const whole = zip({ 'handover/net-loft.xlsx': book, 'handover/papers/Handbook.TXT': text('Empty the lint tray weekly.'), '__MACOSX/._x.xlsx': text('x') })
    const looked = (await take(whole)).body
    expect(looked.rows.find(({ name }) => name === 'Fire report')).toMatchObject({ standing: 'bad', sentences: ['There is no report.txt in the ZIP.'] })
    expect(await house.rows("SELECT id FROM document WHERE title = 'Dryer handbook'")).toEqual([])
    expect((await take(whole, { take: true, name: 'net-loft.zip' })).body.counts).toMatchObject({ Job: { new: 1 }, Document: { new: 1, bad: 1 } })
    const plans = await house.rows(
      "SELECT a.tag, p.rule, p.lead_days AS lead, (SELECT group_concat(d.due_on) FROM due d WHERE d.plan_id = p.id) AS due FROM preventive_plan p JOIN asset a ON a.id = p.asset_id WHERE p.name = 'Filter change' ORDER BY a.tag",
    )
    expect(plans).toEqual(['DRY-1', 'DRY-2'].map((tag) => ({ tag, rule: 'FREQ=MONTHLY;INTERVAL=1', lead: 7, due: '2026-11-30' })))
    const second = await one<{ id: number; parent: string }>(
      "SELECT a.id, p.tag AS parent FROM asset a JOIN asset p ON p.id = a.parent_id WHERE a.tag = 'DRY-2'",
    )
    expect(second.parent).toBe('DRY-1')
    const { rows } = await maren.must(listDocumentsOf, { on: 'assets', id: second.id })
    expect(rows).toMatchObject([{ title: 'Dryer handbook', kind: 'manual', audience: [], files: [{ name: 'handbook.txt', shows: 'text' }] }])
    // Kept once, found by what stands inside.
    expect(
      await house.rows("SELECT DISTINCT stored_id FROM document_file f JOIN document d ON d.id = f.document_id WHERE d.title = 'Dryer handbook'"),
    ).toHaveLength(1)
    expect((await maren.must(listDocuments, { q: 'lint tray' })).rows).toHaveLength(2)
    expect((await maren.must(readPortraitTimeline, { register: 'assets', id: second.id })).entries.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['cobie.plan', 'document.add']),
    )
    expect({ ...sums((await take(whole, { take: true })).body), same: 0, left: 0 }).toEqual({ new: 0, changed: 0, same: 0, bad: 1, left: 0 })
    const other = (all: Record<string, Rows>) => {
      sheets(all)
      all.Job![1]![3] = '2'
    }
    expect((await take(small(other), { take: true })).body.counts.Job).toMatchObject({ changed: 1 })
    expect(
      await house.rows("SELECT cast(d.due_on AS char) AS due FROM due d JOIN preventive_plan p ON p.id = d.plan_id WHERE p.name = 'Filter change'"),
    ).toEqual(['2026-11-30', '2026-11-30'].map((due) => ({ due })))
    for (const [files, says] of [
      [{ 'a.txt': text('x') }, 'no workbook'],
      [{ 'a/1.xlsx': book, 'b/2.xlsx': book }, '2 workbooks'],
      [{ 'a.xlsx': text('no workbook at all') }, 'None of its sheets'],
    ] as [Record<string, Uint8Array>, string][]) {
      const reply = await take(zip(files), { take: true })
      expect([reply.status, reply.problem.reasons![0]!.sentence]).toEqual([422, expect.stringContaining(says)])
    }
  })

  test('bad rows say why and stay out; good ones go in alone; a changed cell changes one', async () => {
    const file = small((sheets) => {
      sheets.Space!.push(['NET-003', 'NET-9', 'Nowhere'], ['TID-001', 'NET-0', 'Taken elsewhere'], ['NET-001', 'NET-0', 'Again'])
      sheets.Type!.push(['Broken', 'x', 'Boreal', 'BX', '', 'two', '', 'Year', 'cheap', '', '', ''])
      sheets.Component![1]![3] = 'Air dryer south'
      sheets.Component!.push(
        ['Dryer 3', 'Dryer', 'NET-003', '', '', '', '', 'DRY-3', ''],
        ['Dryer 4', 'Broken', 'NET-001', '', '', '', '', 'DRY-4', ''],
        ['Dryer 5', 'Unheard of', 'NET-001', '', '', '', '', 'DRY-5', ''],
        ['Dryer 6', 'Dryer', 'NET-001', '', 'B-1001', '', '', 'DRY-6', ''],
        ['Dryer 7', 'Dryer', 'NET-001', '', '', 'soon', '', 'DRY-7', ''],
        ['Dryer 8', 'Dryer', 'NET-001', '', '', '', '', 'DRY-1', ''],
        ['Dryer 9', 'Dryer', 'NET-001', '', '', '', '', 'DRY-9', ''],
      )
    })
    const { body } = await take(file, { take: true })
    const bad = body.rows.filter(({ standing }) => standing === 'bad').map(({ name, sentences }) => [name, sentences.join(' ')])
    expect(bad).toEqual([
      ['NET-003', 'There is no floor called “NET-9” in the workbook.'],
      ['TID-001', expect.stringContaining('It is on TID-0 here.') as string],
      ['NET-001', expect.stringContaining('already') as string],
      ['Broken', expect.stringContaining('WarrantyDurationParts is no number: two.') as string],
      ['DRY-3', expect.stringContaining('no space called “NET-003”') as string],
      ['DRY-4', 'Its type cannot be taken.'],
      ['DRY-5', expect.stringContaining('no type called “Unheard of”') as string],
      ['DRY-6', 'DRY-1 has this serial number already.'],
      ['DRY-7', 'InstallationDate is no day: soon.'],
      ['DRY-1', 'Line 2 has the same tag.'],
    ])
    const tags = (await house.rows<{ tag: string; name: string }>("SELECT tag, name FROM asset WHERE tag LIKE 'DRY-%' ORDER BY tag")).map(({ tag, name }) => [
      tag,
      name,
    ])
    expect(tags).toEqual([
      ['DRY-1', 'Air dryer south'],
      ['DRY-2', 'Dryer 2'],
      ['DRY-9', 'Dryer 9'],
    ])
  })

  test.each([
    ['nothing', () => new Blob([])],
    ['no workbook', () => new Blob(['Name,Category'])],
    ['a workbook of other sheets', () => bookOf({ Sheet1: [['Name'], ['x']] })],
    ['two facilities', () => small((sheets) => sheets.Facility!.push(['OTHER', 'x', 'Other', 'EUR']))],
    ['no facility', () => small((sheets) => delete sheets.Facility)],
  ])('%s is refused at the file', async (_, file) => {
    const reply = await take(file(), { take: true })
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, 'file'])
  })

  test('two who take the same one at once: what one makes, the other finds', async () => {
    const file = small((sheets) => {
      sheets.Facility![1]![0] = 'TWIN'
      sheets.Floor![1]![0] = 'TWIN-0'
      sheets.Space = [sheets.Space![0]!, ['TWIN-001', 'TWIN-0', 'Only room', '', '']]
      sheets.Component = [sheets.Component![0]!, ['Fan', 'Dryer', 'TWIN-001', 'Fan', '', '', '', 'TW-1', '']]
      delete sheets.Attribute
    })
    const replies = await Promise.all([maren, tobias].map((who) => take(file, { take: true }, who)))
    expect(replies.map(({ status }) => status)).toEqual([200, 200])
    expect(await house.rows("SELECT id FROM asset WHERE tag = 'TW-1'")).toHaveLength(1)
    expect(await house.rows("SELECT id FROM place WHERE code LIKE 'TWIN%'")).toHaveLength(3)
  })

  test('a site that is not theirs, and a role that keeps no registers', async () => {
    expect((await take(small(), { take: true }, yusuf)).status).toBe(422)
    const bram = await new Client(server.url).signIn('bram.oyelaran')
    expect((await take(small(), {}, bram)).status).toBe(403)
    const clerk = await new Client(server.url).signIn('petra.lindqvist')
    expect((await take(small(), {}, clerk)).status).toBe(403)
  })
})
