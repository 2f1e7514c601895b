import { addAsset, editAsset, noteAsset, readAsset, restoreAsset, retireAsset } from '#contract/assets'
import type { RecordLine } from '#contract/lists'
import { changeRecords, exportList, listGroups, listRecordLines, peekRow, readListFacts, saveView } from '#contract/lists'
import { findScanned, readPortraitCosts, readPortraitTimeline, readPortraitWork, readTree, readTreePath } from '#contract/portraits'
import { addPlace, editPlace, findAssets, findPlaces, readPlace, retirePlace } from '#contract/places'
import { addPerson } from '#contract/people'
import { addVendor, editVendor, readVendor } from '#contract/vendors'
import { addPayer } from '#contract/ledger'
import { REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Registers: entering, changing, moving and retiring what is looked after, each as who may. */
let house: House
let server: Running
let maren: Client
let petra: Client
let ines: Client

beforeAll(async () => {
  house = await House.open('registers')
  server = await house.start()
  const as = (name: string) => new Client(server.url).signIn(name)
  ;[maren, petra, ines] = await Promise.all([as('maren.quill'), as('petra.lindqvist'), as('ines.ferrall')])
})
afterAll(() => house?.close())

const placeId = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id
const assetId = async (tag: string) => (await house.rows<{ id: number }>('SELECT id FROM asset WHERE tag = ?', [tag]))[0]!.id
const heater = async () => ({
  tag: `X-${Math.random().toString(36).slice(2, 8)}`,
  name: 'Bench heater',
  classCode: 'E1090',
  owner: 'us' as const,
  placeId: await placeId('GAN-202'),
})

describe('an asset', () => {
  test('is entered with what is needed, changed by version, told on its timeline', async () => {
    const made = await maren.must(addAsset, { ...(await heater()), serial: 'S-1', maker: 'Warmspring', priceMinor: 12_050, installedOn: '2026-02-03' })
    expect(made).toMatchObject({
      register: 'assets',
      version: 1,
      state: 'in_use',
      mayEdit: true,
      work: { openOrders: 0, lateOrders: 0, openRequests: 0 },
      priceMinor: 12_050,
    })
    expect(made.names.placeId).toContain('GAN-202')
    const changed = await maren.must(editAsset, { id: made.id, version: 1, condition: 'poor', serial: '' })
    expect(changed).toMatchObject({ version: 2, condition: 'poor', serial: null })
    const stale = await maren.call(editAsset, { id: made.id, version: 1, condition: 'good' })
    expect([stale.status, stale.problem.conflict]).toEqual([409, [{ field: 'condition', theirs: 'poor', yours: 'good' }]])
    const { entries } = await maren.must(readPortraitTimeline, { register: 'assets', id: made.id })
    expect(entries.map((one) => one.kind)).toEqual(['register.edit', 'register.add'])
    expect(entries[0]!.details!.fields).toEqual({ condition: { from: null, to: 'poor' }, serial: { from: 'S-1', to: null } })
  })

  test('with a tag or serial that is there already is refused, and the one that has it is named', async () => {
    const first = await maren.must(addAsset, { ...(await heater()), serial: 'TWICE-7', maker: 'Warmspring' })
    const tag = await maren.call(addAsset, { ...(await heater()), tag: first.tag })
    expect(tag.problem.reasons).toEqual([expect.objectContaining({ code: 'taken', field: 'tag', record: { register: 'assets', id: first.id } })])
    const serial = await maren.call(addAsset, { ...(await heater()), serial: 'TWICE-7', maker: 'Warmspring' })
    expect(serial.problem.reasons![0]).toMatchObject({ code: 'taken', field: 'serial', record: { id: first.id } })
    expect(serial.problem.reasons![0]!.sentence).toContain(`${first.tag} Bench heater`)
    // Another maker may use the same number.
    expect((await maren.call(addAsset, { ...(await heater()), serial: 'TWICE-7', maker: 'Polarbox' })).status).toBe(200)
  })

  test('everything that is wrong is said at once, at its field', async () => {
    const reply = await maren.call(addAsset, { tag: '', name: 'x', classCode: 'Z9999', owner: 'us', placeId: 1, installedOn: '2026-02-30' })
    expect(reply.status).toBe(400)
    expect(reply.problem.reasons!.map((one) => one.field).sort()).toEqual(['classCode', 'installedOn', 'tag'])
    const bound = await maren.call(addAsset, { ...(await heater()), owner: 'payer', warrantyFrom: '2026-05-01', warrantyUntil: '2026-04-01' })
    expect(bound.problem.reasons!.map((one) => one.code).sort()).toEqual(['backwards', 'payer_missing'])
  })

  test('its parts go where it goes, and it never becomes part of its own part', async () => {
    const chiller = await maren.must(addAsset, await heater())
    const pump = await maren.must(addAsset, { ...(await heater()), parentId: chiller.id })
    const seal = await maren.must(addAsset, { ...(await heater()), parentId: pump.id })
    const elsewhere = await maren.must(addAsset, { ...(await heater()), placeId: await placeId('GAN-204'), parentId: chiller.id })
    const circle = await maren.call(editAsset, { id: chiller.id, version: chiller.version, parentId: seal.id })
    expect(circle.problem.reasons).toEqual([expect.objectContaining({ code: 'circle', field: 'parentId' })])
    const self = await maren.call(editAsset, { id: chiller.id, version: chiller.version, parentId: chiller.id })
    expect(self.problem.reasons![0]!.code).toBe('circle')
    const there = await placeId('GAN-203')
    await maren.must(editAsset, { id: chiller.id, version: chiller.version, placeId: there })
    expect((await maren.must(readAsset, { id: seal.id })).placeId).toBe(there)
    expect((await maren.must(readAsset, { id: elsewhere.id })).placeId).toBe(elsewhere.placeId)
    const paths = await house.rows<{ path: string }>('SELECT path FROM asset WHERE id IN (?, ?, ?) ORDER BY id', [chiller.id, pump.id, seal.id])
    expect(paths.map((row) => row.path)).toEqual([`/${chiller.id}/`, `/${chiller.id}/${pump.id}/`, `/${chiller.id}/${pump.id}/${seal.id}/`])
    const { version } = await maren.must(readAsset, { id: pump.id })
    await maren.must(editAsset, { id: pump.id, version, parentId: null })
    expect((await house.rows<{ path: string }>('SELECT path FROM asset WHERE id = ?', [seal.id]))[0]!.path).toBe(`/${pump.id}/${seal.id}/`)
  })

  test('of two who put each into the other at once, one is told that it would be a circle', async () => {
    const pairs = await Promise.all(
      Array.from({ length: 6 }, async () => [await maren.must(addAsset, await heater()), await maren.must(addAsset, await heater())] as const),
    )
    for (const [one, other] of pairs) {
      const replies = await Promise.all([
        maren.call(editAsset, { id: one.id, version: 1, parentId: other.id }),
        maren.call(editAsset, { id: other.id, version: 1, parentId: one.id }),
      ])
      expect(replies.map((reply) => reply.status).sort()).toEqual([200, 422])
      const rows = await house.rows<{ id: number; parent_id: number | null; path: string }>('SELECT id, parent_id, path FROM asset WHERE id IN (?, ?)', [
        one.id,
        other.id,
      ])
      const [root, leaf] = [rows.find((row) => row.parent_id === null)!, rows.find((row) => row.parent_id !== null)!]
      expect([root.path, leaf.path]).toEqual([`/${root.id}/`, `/${root.id}/${leaf.id}/`])
    }
  })

  test('that is replaced names its successor when it is retired', async () => {
    const [old, next] = [await maren.must(addAsset, await heater()), await maren.must(addAsset, await heater())]
    await maren.must(editAsset, { id: old.id, version: 1, successorId: next.id })
    await maren.must(retireAsset, { id: old.id, version: 2 })
    const { entries } = await maren.must(readPortraitTimeline, { register: 'assets', id: old.id })
    expect(entries[0]).toMatchObject({ kind: 'register.retire', details: { successor: `${next.tag} Bench heater` } })
  })

  test('is retired though work is open on it only when that is said; nobody chooses it then; it can come back', async () => {
    const busy = (
      await house.rows<{ id: number }>(
        "SELECT a.id FROM asset a JOIN work_order o ON o.asset_id = a.id WHERE o.state IN ('ready', 'dispatched', 'draft') AND o.discarded_at IS NULL AND NOT EXISTS (SELECT 1 FROM asset b WHERE b.parent_id = a.id) LIMIT 1",
      )
    )[0]!.id
    const { version, tag, work } = await maren.must(readAsset, { id: busy })
    expect(work.openOrders).toBeGreaterThan(0)
    const refused = await maren.call(retireAsset, { id: busy, version })
    expect(refused.problem.reasons).toEqual([expect.objectContaining({ code: 'still_open', field: 'despiteOpen' })])
    const retired = await maren.must(retireAsset, { id: busy, version, despiteOpen: true })
    expect(retired).toMatchObject({ state: 'retired', version: version + 1 })
    expect((await maren.must(findAssets, { q: tag })).rows.some((row) => row.id === busy)).toBe(false)
    const listed = async (more: string) =>
      (await maren.must(listRecordLines, { register: 'assets', ask: `words=${tag}${more}` })).rows.some((row) => row.id === busy)
    expect([await listed(''), await listed('&retired=yes')]).toEqual([false, true])
    expect((await maren.call(addAsset, { ...(await heater()), parentId: busy })).problem.reasons![0]).toMatchObject({ field: 'parentId' })
    expect((await maren.must(restoreAsset, { id: busy, version: version + 1 })).state).toBe('in_use')
    expect((await maren.must(findAssets, { q: tag })).rows.some((row) => row.id === busy)).toBe(true)
  })

  test('is noted during a call by its name or its tag; a tag that is there names the one that has it', async () => {
    const place = await placeId('GAN-202')
    const named = await maren.must(noteAsset, { placeId: place, name: 'Kettle' })
    expect(named).toMatchObject({ tag: expect.stringMatching(/^A-\d{5}$/), name: 'Kettle' })
    const second = await maren.must(noteAsset, { placeId: place, name: 'Kettle' })
    expect(second.tag > named.tag).toBe(true)
    const tagged = await maren.must(noteAsset, { placeId: place, tag: 'K-77' })
    expect(await maren.must(readAsset, { id: tagged.id })).toMatchObject({ tag: 'K-77', name: 'K-77', classCode: null, owner: 'us', placeId: place })
    expect((await maren.call(noteAsset, { placeId: place, tag: 'K-77' })).problem.reasons![0]).toMatchObject({ code: 'taken', record: { id: tagged.id } })
    expect((await maren.call(noteAsset, { placeId: place })).status).toBe(400)
    expect((await ines.call(noteAsset, { placeId: place, name: 'Kettle' })).status).toBe(403)
    // Two at once get numbers of their own.
    const both = await Promise.all([maren.must(noteAsset, { placeId: place, name: 'Toaster' }), maren.must(noteAsset, { placeId: place, name: 'Toaster' })])
    expect(both[0].tag).not.toBe(both[1].tag)
  })

  test('with parts in use is not retired', async () => {
    const whole = (await house.rows<{ id: number }>('SELECT parent_id AS id FROM asset WHERE parent_id IS NOT NULL LIMIT 1'))[0]!.id
    const { version } = await maren.must(readAsset, { id: whole })
    expect((await maren.call(retireAsset, { id: whole, version, despiteOpen: true })).problem.reasons![0]!.code).toBe('has_parts')
  })
})

describe('a place', () => {
  test('stands where its kind may, is moved with everything in it, and is found by the names above it', async () => {
    const [gan, kel] = [await placeId('GAN'), await placeId('KEL')]
    const floor = await maren.must(addPlace, { code: 'GAN-X', name: 'Attic', kind: 'floor', parentId: gan })
    const room = await maren.must(addPlace, { code: 'GAN-X1', name: 'Box room', kind: 'space', parentId: floor.id })
    expect((await maren.call(addPlace, { code: 'GAN-Y', name: 'Odd', kind: 'floor', parentId: room.id })).problem.reasons![0]).toMatchObject({
      code: 'wrong_kind',
      field: 'parentId',
    })
    expect((await maren.call(addPlace, { code: 'GAN-Z', name: 'Odd', kind: 'space' })).problem.reasons![0]!.code).toBe('parent_missing')
    expect((await maren.call(addPlace, { code: 'GAN-X', name: 'Odd', kind: 'space', parentId: gan })).problem.reasons![0]!.code).toBe('taken')
    expect((await maren.call(editPlace, { id: floor.id, version: 1, parentId: room.id })).problem.reasons!.map((one) => one.code)).toContain('circle')
    expect((await maren.must(findPlaces, { q: 'box gannet' })).rows.map((row) => row.code)).toContain('GAN-X1')
    await maren.must(editPlace, { id: floor.id, version: 1, parentId: kel, name: 'Loft' })
    expect((await maren.must(findPlaces, { q: 'box kelp loft' })).rows.map((row) => row.code)).toContain('GAN-X1')
    expect((await maren.must(findPlaces, { q: 'box gannet' })).rows).toEqual([])
    const { nodes } = await maren.must(readTreePath, { under: 'place', id: room.id })
    expect(nodes.map((node) => node.code).slice(1)).toEqual(['KEL', 'GAN-X', 'GAN-X1'])
    expect((await maren.call(retirePlace, { id: floor.id, version: 2 })).problem.reasons![0]!.code).toBe('not_empty')
    await maren.must(retirePlace, { id: room.id, version: 1 })
    expect((await maren.must(retirePlace, { id: floor.id, version: 2 })).state).toBe('retired')
  })

  test('of one site is not seen, changed or named from another', async () => {
    const mus = (
      await house.rows<{ id: number; site_id: number }>(
        "SELECT p.id, p.site_id FROM place p JOIN site s ON s.id = p.site_id WHERE p.kind = 'space' AND s.code <> 'SKE' LIMIT 1",
      )
    )[0]!
    await house.rows("UPDATE account_role SET site_id = 1 WHERE account_id = (SELECT id FROM account WHERE email = 'tobias.achterberg@skerry.example')")
    const tobias = await new Client(server.url).signIn('tobias.achterberg')
    expect((await tobias.call(readPlace, { id: mus.id })).status).toBe(404)
    expect((await tobias.call(editPlace, { id: mus.id, version: 1, name: 'Mine' })).status).toBe(404)
    expect((await tobias.call(readPortraitWork, { register: 'places', id: mus.id })).status).toBe(404)
    expect((await tobias.call(readTree, { under: 'place', id: mus.id })).status).toBe(404)
    expect((await tobias.call(addAsset, { ...(await heater()), siteId: mus.site_id })).status).toBe(422)
    expect((await tobias.call(addAsset, { ...(await heater()), placeId: mus.id })).problem.reasons![0]).toMatchObject({ field: 'placeId' })
    expect((await tobias.must(readTree, {})).rows).toHaveLength(1)
  })
})

test('a vendor is entered with two fields; bank details are seen and changed by who pays alone', async () => {
  const made = await maren.must(addVendor, { name: 'Kittiwake Locks', email: 'jobs@kittiwake.example' })
  expect(made).toMatchObject({ markupBp: null, callOutMinor: null, site: null })
  expect('iban' in made).toBe(false)
  expect((await maren.call(editVendor, { id: made.id, version: 1, iban: 'GB82 WEST 1234 5698 7654 32' })).problem.reasons![0]).toMatchObject({
    code: 'not_yours',
    field: 'iban',
  })
  expect((await petra.call(editVendor, { id: made.id, version: 1, iban: 'GB82 WEST 1234 5698 7654 32' })).status).toBe(403)
  expect('iban' in (await petra.must(readVendor, { id: made.id }))).toBe(true)
  expect((await maren.call(addVendor, { name: 'Kittiwake Locks', email: 'other@kittiwake.example' })).problem.reasons![0]).toMatchObject({
    code: 'taken',
    record: { id: made.id },
  })
})

test('who may not enter is told so; nothing is made', async () => {
  const before = await house.rows<{ n: number }>('SELECT (SELECT COUNT(*) FROM asset) + (SELECT COUNT(*) FROM payer) + (SELECT COUNT(*) FROM person) AS n')
  expect((await ines.call(addAsset, await heater())).status).toBe(403)
  expect((await maren.call(addPayer, { code: 'P9', name: 'Nobody', kind: 'tenant', taxBp: 0 })).status).toBe(403)
  expect((await petra.call(addPerson, { name: 'Nobody' })).status).toBe(403)
  expect(await house.rows('SELECT (SELECT COUNT(*) FROM asset) + (SELECT COUNT(*) FROM payer) + (SELECT COUNT(*) FROM person) AS n')).toEqual(before)
})

test('a Portrait adds up: badges of the tree, open work, and cost by year are those of the orders themselves', async () => {
  const site = (await maren.must(readTree, {})).rows.find((node) => node.code !== 'MUS')!
  const [counted] = await house.rows<{ open: number }>(
    "SELECT COUNT(*) AS open FROM work_order o LEFT JOIN asset a ON a.id = o.asset_id JOIN place p ON p.id = COALESCE(o.place_id, a.place_id) WHERE p.path LIKE CONCAT('/', ?, '/%') AND o.state NOT IN ('done', 'checked', 'closed', 'cancelled') AND o.discarded_at IS NULL",
    [site.id],
  )
  const buildings = (await maren.must(readTree, { under: 'place', id: site.id })).rows
  const [overCount] = await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM work_order WHERE state IN ('closed', 'cancelled')")
  expect(Number(overCount!.n)).toBeGreaterThan(0)
  expect(site.open).toBe(Number(counted!.open))
  expect(buildings.reduce((sum, node) => sum + node.open, 0)).toBeLessThanOrEqual(site.open)
  expect(buildings.find((node) => node.code === 'TID')!.below).toBeGreaterThan(0)

  const chiller = await assetId('CH-1')
  const sheet = await maren.must(readAsset, { id: chiller })
  const work = await maren.must(readPortraitWork, { register: 'assets', id: chiller })
  expect(work.open.filter((one) => one.type === 'order')).toHaveLength(sheet.work.openOrders)
  expect(work.finished).toBeGreaterThan(0)
  expect(work.done[0]!.finishedAt >= work.done.at(-1)!.finishedAt).toBe(true)
  const { years } = await maren.must(readPortraitCosts, { register: 'assets', id: chiller })
  expect(years.reduce((sum, year) => sum + year.orders, 0)).toBe(work.finished)
  const total = (what: string, table: string) =>
    house.rows<{ n: string | null }>(
      `SELECT SUM(${what}) AS n FROM work_order o JOIN ${table} x ON x.order_id = o.id JOIN asset a ON a.id = o.asset_id WHERE a.path LIKE ? AND o.finished_at IS NOT NULL AND o.state IN ('done', 'checked', 'closed')`,
      [`/${chiller}/%`],
    )
  expect(years.reduce((sum, year) => sum + year.labourMinor, 0)).toBe(Number((await total('x.cost_minor', 'stint'))[0]!.n ?? 0))
})

test('a label leads to what it stands for, where one may look', async () => {
  const tag = 'CH-1'
  const id = await assetId(tag)
  expect(await maren.must(findScanned, { site: 'SKE', place: 'anywhere', asset: tag })).toEqual({ register: 'assets', id })
  expect(await maren.must(findScanned, { site: 'SKE', place: 'GAN-202' })).toEqual({ register: 'places', id: await placeId('GAN-202') })
  expect((await maren.call(findScanned, { site: 'MUS', asset: tag })).status).toBe(404)
  expect((await maren.call(findScanned, { site: 'SKE' })).status).toBe(400)
  expect((await new Client(server.url).call(findScanned, { site: 'SKE', asset: tag })).status).toBe(401)
})

describe('a register as a list', () => {
  const rowsOf = async (register: RegisterName, ask = '') => (await maren.must(listRecordLines, { register, ask, limit: 200 })).rows
  async function allOf(register: RegisterName, ask: string) {
    const rows: RecordLine[] = []
    for (let after: string | undefined, more = true; more;) {
      const page = await maren.must(listRecordLines, { register, ask, limit: 60, ...(after ? { after } : {}) })
      rows.push(...page.rows)
      after = page.next ?? undefined
      more = page.next !== null
    }
    return rows
  }
  const ids = (rows: { id: number }[]) => rows.map((row) => row.id).sort((a, b) => a - b)
  const sqlIds = async (from: string) => ids(await house.rows<{ id: number }>(`SELECT t.id FROM ${from}`))

  test('shows what is counted beside a record', async () => {
    for (const register of REGISTERS) expect((await rowsOf(register)).length).toBeGreaterThan(0)
    const members = await house.rows<{ id: number; n: number }>('SELECT team_id AS id, COUNT(*) AS n FROM technician GROUP BY team_id')
    for (const { id, n } of members) expect((await rowsOf('teams')).find((row) => row.id === id)!.cells).toMatchObject({ members: Number(n) })
    const lent = await house.rows<{ id: number; number: string }>(
      "SELECT l.equipment_id AS id, o.number FROM booking l JOIN work_order o ON o.id = l.order_id WHERE l.state = 'out'",
    )
    for (const { id, number } of lent) expect((await rowsOf('equipment')).find((row) => row.id === id)!.cells).toMatchObject({ lent: number })
    const [stock] = await house.rows<{ code: string; n: string }>(
      'SELECT p.code, SUM(l.quantity) AS n FROM stock_level l JOIN part p ON p.id = l.part_id GROUP BY p.id ORDER BY n DESC LIMIT 1',
    )
    expect(Number((await rowsOf('parts', `code=${stock!.code}`))[0]!.cells.stock)).toBe(Number(stock!.n))
    const technician = (await rowsOf('people', 'technician=yes'))[0]!
    expect(String(technician.cells.technician)).not.toBe('')
  })

  test.each([
    ['assets', 'condition=poor,failing', "asset t WHERE t.condition IN ('poor', 'failing')"],
    ['assets', 'condition=none&class=!D3030', "asset t WHERE t.condition IS NULL AND (t.class_code IS NULL OR t.class_code <> 'D3030')"],
    ['assets', 'warrantyUntil=today..365d', "asset t WHERE t.warranty_until BETWEEN '2026-11-23' AND '2027-11-23'"],
    ['assets', 'warrantyUntil=..-1d', "asset t WHERE t.warranty_until < '2026-11-23'"],
    [
      'assets',
      'place=2&open=yes',
      "asset t JOIN place p ON p.id = t.place_id WHERE p.path LIKE '/1/2/%' AND EXISTS (SELECT 1 FROM work_order o WHERE o.asset_id = t.id AND o.discarded_at IS NULL AND o.state NOT IN ('done', 'checked', 'closed', 'cancelled'))",
    ],
    ['places', 'kind=floor&words=tide', "place t JOIN place b ON b.id = t.parent_id WHERE t.kind = 'floor' AND t.search_text LIKE '%tide%'"],
    ['payers', 'kind=grant&endsOn=any', "payer t WHERE t.kind = 'grant' AND t.ends_on IS NOT NULL"],
    ['vendors', 'perHour=..6000', 'vendor t WHERE t.per_hour_minor <= 6000'],
    ['people', 'technician=yes', 'person t JOIN account a ON a.person_id = t.id JOIN technician x ON x.account_id = a.id'],
  ] as const)('%s?%s', async (register, ask, from) => {
    const found = await allOf(register, ask)
    const expected = await sqlIds(`${from.includes(' WHERE ') ? `${from} AND` : `${from} WHERE`} t.retired_at IS NULL`)
    expect(ids(found)).toEqual(expected)
    expect(expected.length).toBeGreaterThan(0)
    const facts = await maren.must(readListFacts, { kind: register, ask })
    expect(facts.count).toBe(expected.length)
  })

  test('runs by any field that sorts, every row once, those without it last', async () => {
    const seen = (await allOf('assets', 'sort=-warrantyUntil')).map((row) => row.cells.warrantyUntil as string | null)
    const [{ n }] = (await house.rows<{ n: number }>('SELECT COUNT(*) AS n FROM asset WHERE retired_at IS NULL')) as [{ n: number }]
    expect(seen).toHaveLength(Number(n))
    expect(seen).toEqual([...seen].sort((a, b) => (b ?? '').localeCompare(a ?? '')))
  })

  test('is brought together, peeked at and taken away', async () => {
    const groups = await maren.must(listGroups, { kind: 'assets', ask: 'group=condition' })
    const kinds = await house.rows<{ condition: string | null; n: number }>(
      'SELECT `condition`, COUNT(*) AS n FROM asset WHERE retired_at IS NULL GROUP BY `condition`',
    )
    expect(groups.rows.map(({ value, count, past }) => [value, count, past]).sort()).toEqual(
      kinds.map((row) => [row.condition ?? 'none', Number(row.n), null]).sort(),
    )
    const byPlace = await maren.must(listGroups, { kind: 'assets', ask: 'group=place' })
    expect(byPlace.rows.reduce((sum, row) => sum + row.count, 0)).toBe(kinds.reduce((sum, row) => sum + Number(row.n), 0))
    const [row] = await rowsOf('assets', 'warrantyUntil=any')
    const peek = await maren.must(peekRow, { kind: 'assets', id: row!.id })
    expect(peek).toMatchObject({ number: row!.number, summary: row!.heading })
    expect(peek.facts.map((fact) => fact.label)).toEqual(expect.arrayContaining(['Place', 'Warranty until']))
    const file = await maren.call(exportList, { kind: 'payers', ask: 'columns=code,name,kind,tax', format: 'csv' })
    const lines = file.text.trim().split('\r\n')
    expect(lines[0]).toBe('Code,Name,Kind,Tax')
    expect(lines).toHaveLength(1 + (await rowsOf('payers')).length)
    expect(lines.some((line) => /,Cost centre,\d/.test(line))).toBe(true)
  })

  test('shows bank details to who pays alone, and asks nothing by them for others', async () => {
    await house.rows("UPDATE vendor SET iban = 'IE29AIBK93115212345678' WHERE id = 1")
    const ask = 'columns=name,iban&iban=IE29'
    expect((await petra.must(listRecordLines, { register: 'vendors', ask })).rows[0]!.cells.iban).toBe('IE29AIBK93115212345678')
    const refused = await maren.call(listRecordLines, { register: 'vendors', ask })
    expect([refused.status, refused.problem.reasons!.map((reason) => reason.field)]).toEqual([422, ['columns', 'iban']])
    for (const format of ['csv', 'xlsx'] as const) expect((await maren.call(exportList, { kind: 'vendors', ask, format })).status).toBe(422)
    expect((await maren.call(listGroups, { kind: 'vendors', ask: 'iban=IE' })).status).toBe(422)
    expect(JSON.stringify(await maren.must(peekRow, { kind: 'vendors', id: 1 }))).not.toContain('IE29')
  })

  test('shows nothing of a site that is not theirs', async () => {
    const osric = await house.rows<{ id: number }>("SELECT id FROM account WHERE email LIKE 'osric.vane@%'")
    await house.rows("UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = ?", [osric[0]!.id])
    const elsewhere = await new Client(server.url).signIn('osric.vane')
    const mine = await elsewhere.must(listRecordLines, { register: 'assets', ask: '', limit: 200 })
    const there = await house.rows<{ id: number }>('SELECT id FROM asset WHERE site_id = 2 AND retired_at IS NULL ORDER BY id')
    expect(ids(mine.rows)).toEqual(there.map((row) => row.id))
    expect((await elsewhere.must(readListFacts, { kind: 'assets', ask: 'place=2' })).names.place).toEqual({})
    const [here] = await house.rows<{ id: number; version: number }>('SELECT id, version FROM asset WHERE site_id = 1 LIMIT 1')
    expect((await elsewhere.call(peekRow, { kind: 'assets', id: here!.id })).status).toBe(404)
    const tried = await elsewhere.call(changeRecords, { register: 'assets', field: 'condition', items: [{ ...here!, value: 'good' }] })
    expect(tried.status === 403 || !tried.body.rows[0]!.changed).toBe(true)
  })

  test('one field of many is changed with a result for each, and taken back', async () => {
    const rows = (await rowsOf('assets', 'condition=none')).slice(0, 3)
    const before = await Promise.all(rows.map(({ id }) => maren.must(readAsset, { id })))
    const items = rows.map(({ id, version }, index) => ({ id, version: index === 1 ? version + 7 : version, value: 'fair' }))
    const { rows: done } = await maren.must(changeRecords, {
      register: 'assets',
      field: 'condition',
      items: [...items, { id: 999_999, version: 1, value: 'fair' }],
    })
    expect(done.map(({ id, changed, before: was }) => [id, changed, was])).toEqual([
      [rows[0]!.id, true, null],
      [rows[1]!.id, false, null],
      [rows[2]!.id, true, null],
      [999_999, false, null],
    ])
    expect(done[1]!.reasons[0]!.code).toBe('changed')
    expect((await maren.must(readAsset, { id: rows[2]!.id })).condition).toBe('fair')
    const wrong = await maren.must(changeRecords, {
      register: 'assets',
      field: 'condition',
      items: [{ ...items[1]!, version: rows[1]!.version, value: 'shiny' }],
    })
    expect(wrong.rows[0]).toMatchObject({ changed: false, reasons: [{ field: 'condition', sentence: 'Choose one of the values offered.' }] })
    const back = done.filter((row) => row.changed).map(({ id, version, before: was }) => ({ id, version, value: was }))
    expect((await maren.must(changeRecords, { register: 'assets', field: 'condition', items: back })).rows.every((row) => row.changed)).toBe(true)
    for (const one of before) expect((await maren.must(readAsset, { id: one.id })).condition).toBe(one.condition)
    const told = await house.rows<{ kind: string }>("SELECT kind FROM event WHERE register = 'assets' AND record_id = ? ORDER BY id DESC LIMIT 2", [
      rows[0]!.id,
    ])
    expect(told.map((event) => event.kind)).toEqual(['register.edit', 'register.edit'])
  })

  test('many are retired and taken back, but for those that are held', async () => {
    const free = (await rowsOf('parts')).slice(0, 2).map(({ id, version }) => ({ id, version, value: 1 }))
    const { rows: done } = await maren.must(changeRecords, { register: 'parts', field: 'retired', items: free })
    const went = done.filter((row) => row.changed)
    const held = done.filter((row) => !row.changed)
    for (const row of held) expect(row.reasons[0]!.sentence.length).toBeGreaterThan(10)
    const back = went.map(({ id, version, before }) => ({ id, version, value: before }))
    if (back.length) expect((await maren.must(changeRecords, { register: 'parts', field: 'retired', items: back })).rows.every((row) => row.changed)).toBe(true)
    expect((await rowsOf('parts', 'retired=yes')).filter((row) => free.some((one) => one.id === row.id))).toEqual([])
  })

  test('is changed by who keeps it, in fields that there are and are theirs', async () => {
    const [asset] = await rowsOf('assets')
    const items = [{ id: asset!.id, version: asset!.version, value: 'good' }]
    expect((await ines.call(changeRecords, { register: 'assets', field: 'condition', items })).status).toBe(403)
    expect((await maren.call(changeRecords, { register: 'payers', field: 'taxBp', items: [{ ...items[0]!, value: 0 }] })).status).toBe(403)
    expect((await maren.call(changeRecords, { register: 'assets', field: 'shine', items })).problem.reasons![0]).toMatchObject({ code: 'no_field' })
    expect((await maren.must(changeRecords, { register: 'vendors', field: 'iban', items: [{ id: 1, version: 1, value: '' }] })).rows[0]!.changed).toBe(false)
  })

  test('a view of a register is saved for that register', async () => {
    const { key, rows } = await maren.must(saveView, { name: 'Failing', kind: 'assets', address: 'condition=failing', sharedWith: 'nobody' })
    expect(rows.find((row) => row.key === key)).toMatchObject({ kind: 'assets', mine: true })
    expect((await maren.call(saveView, { name: 'Odd', kind: 'payers', address: 'condition=failing', sharedWith: 'nobody' })).problem.reasons![0]).toMatchObject(
      {
        code: 'list_address',
      },
    )
  })
})
