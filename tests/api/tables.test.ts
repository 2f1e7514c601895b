import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { stringify } from 'csv-stringify/sync'
import jsQR from 'jsqr'
import sharp from 'sharp'
import { findPeople } from '#contract/people'
import { printLabels } from '#contract/places'
import { findCounterSpots, readCounterSpot, reportRequest } from '#contract/requests'
import { takeTable } from '#contract/setup'
import type { TableKind } from '#core/setup'
import { LABEL_SHEETS, LABEL_SIZES } from '#core/places'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Tables that come in, and labels that go out. */
let house: House
let server: Running
let admin: Client

beforeAll(async () => {
  house = await House.open('tables')
  server = await house.start()
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const count = async (table: string) => (await house.rows<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n
const file = (text: string | Uint8Array<ArrayBuffer>) => ({ file: new Blob([text], { type: 'text/csv' }) })
const table = (what: 'people' | 'places', content: string | Uint8Array<ArrayBuffer>, more: { take?: boolean; matching?: string } = {}) =>
  admin.must(takeTable, { what, siteId: 1, ...more }, file(content))

describe('people from a table', () => {
  const HEADING = 'Full name,E-mail,Ext,Room,Cost centre,Shoe size'
  const ROWS = [
    'Runa Oyelade,runa.oyelade@skerry.example,2301,TID-104,5100,38',
    '"Falk, ""Otto"" line",otto.falk@skerry.example,2302,,,',
    'No Mail,,2303,,,',
    'Bad Place,bad.place@skerry.example,2304,XXX-1,,',
    'Twice,runa.oyelade@skerry.example,2305,,,',
  ]
  const text = [HEADING, ...ROWS].join('\r\n')

  test('is shown before anything is done: columns matched, every bad row with its reasons', async () => {
    const before = await count('person')
    const report = await table('people', text)
    expect(report.columns.map((column) => column.field)).toEqual(['name', 'email', 'extension', 'place', 'payer', null])
    expect(report).toMatchObject({ rows: 5, fresh: 2, changed: 0, same: 0, badCount: 3, taken: false })
    expect(report.bad.map((row) => [row.line, row.sentences])).toEqual([
      [4, ['Mail address is missing.']],
      [5, ['There is no place XXX-1.']],
      [6, ['Line 2 is the same mail address.']],
    ])
    expect(await count('person')).toBe(before)
  })

  test('good rows go in alone; the same file again changes nothing; a changed cell changes one', async () => {
    const before = await count('person')
    expect(await table('people', text, { take: true })).toMatchObject({ fresh: 2, taken: true })
    expect(await count('person')).toBe(before + 2)
    const all = JSON.stringify(await house.rows('SELECT * FROM person ORDER BY id'))
    expect(await table('people', text, { take: true })).toMatchObject({ fresh: 0, changed: 0, same: 2 })
    expect(JSON.stringify(await house.rows('SELECT * FROM person ORDER BY id'))).toBe(all)
    expect(await table('people', text.replace('2301', '2399'), { take: true })).toMatchObject({ fresh: 0, changed: 1, same: 1 })
    const coordinator = await new Client(server.url).signIn('maren.quill')
    const { rows } = await coordinator.must(findPeople, { q: '2399' })
    expect(rows[0]).toMatchObject({ name: 'Runa Oyelade' })
    const [kept] = await house.rows<{ name: string; place_id: number | null }>("SELECT name, place_id FROM person WHERE email = 'otto.falk@skerry.example'")
    expect(kept!.name).toBe('Falk, "Otto" line')
  })

  test('a column can be matched otherwise; a needed one that is missing is said before any row', async () => {
    const odd = 'Wer,Wohin\nLiv Sand,liv.sand@skerry.example\n'
    expect((await table('people', odd)).unread).toEqual(['No column is Name. Choose which one it is.', 'No column is Mail address. Choose which one it is.'])
    expect(await table('people', odd, { matching: 'name,email' })).toMatchObject({ unread: [], fresh: 1 })
  })

  // RFC 4180, section 2, rules 1 to 7, and what office programs make of it (common practice).
  test.each<[string, string | Uint8Array<ArrayBuffer>, string]>([
    ['no line end after the last record', 'name,email\r\nA B,a@csv.example', 'A B'],
    ['line feeds alone', 'name,email\nA B,a@csv.example\n', 'A B'],
    ['quoted commas, quotes and line ends', 'name,email\r\n"A, ""B""\r\nC",a@csv.example\r\n', 'A, "B"\nC'],
    ['spaces that belong to a cell are trimmed at its ends', 'name,email\r\n  A B ,a@csv.example\r\n', 'A B'],
    ['semicolons', 'name;email\r\nA B;a@csv.example\r\n', 'A B'],
    ['tabs', 'name\temail\r\nA B\ta@csv.example\r\n', 'A B'],
    ['a byte order mark', '\uFEFFname,email\r\nÅsa Ö,a@csv.example\r\n', 'Åsa Ö'],
    [
      'windows-1252',
      new Uint8Array(
        [...'name,email\r\n']
          .map((one) => one.charCodeAt(0))
          .concat(
            [0xc5, 0x73, 0x61],
            [...',a@csv.example'].map((one) => one.charCodeAt(0)),
          ),
      ),
      'Åsa',
    ],
  ])('RFC 4180: %s', async (_name, content, name) => {
    await house.rows("DELETE FROM person WHERE email = 'a@csv.example'")
    expect(await table('people', content, { take: true })).toMatchObject({ fresh: 1, badCount: 0 })
    expect(await house.rows("SELECT name FROM person WHERE email = 'a@csv.example'")).toEqual([{ name }])
  })

  test('a row that begins after a cell with line ends is named by its own line', async () => {
    const report = await table('people', 'name,email\n"A\nB",c@csv.example\nNo Mail,\n')
    expect(report.bad.map((row) => row.line)).toEqual([4])
  })

  test.each([
    ['nothing in it', '   '],
    ['a quote that is never closed', 'name,email\n"A,a@csv.example\n'],
  ])('%s is refused at the file', async (_name, content) => {
    const reply = await admin.call(takeTable, { what: 'people', siteId: 1 }, file(content))
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, 'file'])
  })

  test('twenty thousand people, written by a CSV library, are read', async () => {
    const many = stringify([['name', 'email'], ...Array.from({ length: 20_000 }, (_, n) => [`Person, ${n}`, `p${n}@many.example`])])
    expect(await table('people', many)).toMatchObject({ rows: 20_000, fresh: 20_000, badCount: 0 })
  }, 60_000)
})

describe('places from a table', () => {
  const text = [
    'code,name,kind,parent',
    'NEW-101,Net store,space,NEW-1',
    'NEW-1,First floor,floor,NEW',
    'NEW,New Quay,building,',
    'LOST-1,Nowhere,space,LOST',
    'TID-104,Wet lab two,space,TID-1',
    'ROOF,Roof,attic,TID',
  ].join('\n')

  test('stand in their tree whatever the order of rows; those whose place above is bad are bad', async () => {
    const report = await table('places', text, { take: true })
    expect(report).toMatchObject({ fresh: 3, changed: 1, taken: true })
    expect(report.bad.map((row) => [row.line, row.sentences[0]])).toEqual([
      [5, 'There is no place LOST to be in.'],
      [7, 'attic is no kind of place. It is one of building, floor, space, grounds.'],
    ])
    const [spot] = (await admin.must(findCounterSpots, { site: 'SKE', q: 'net store new quay' })).rows
    expect(spot).toMatchObject({ code: 'NEW-101', within: 'First floor, New Quay' })
    const [place] = await house.rows<{ id: number; path: string }>("SELECT id, path FROM place WHERE code = 'NEW-101'")
    const above = await house.rows<{ id: number }>("SELECT id FROM place WHERE code IN ('NEW', 'NEW-1') ORDER BY FIELD(code, 'NEW', 'NEW-1')")
    expect(place!.path).toBe(`/${[1, ...above.map((row) => row.id), place!.id].join('/')}/`)
    expect(await table('places', text, { take: true })).toMatchObject({ fresh: 0, changed: 0, same: 4 })
  })

  test('a new name is found by its new words, also from what is below; nothing is moved by a table', async () => {
    await table('places', 'code,name,kind\nNEW,Herring Quay,building\n', { take: true })
    const { rows } = await admin.must(findCounterSpots, { site: 'SKE', q: 'net store herring' })
    expect(rows[0]!.within).toBe('First floor, Herring Quay')
    const moved = await table('places', 'code,name,kind,parent\nNEW-101,Net store,space,TID-1\n')
    expect(moved.bad[0]!.sentences[0]).toBe('NEW-101 is in NEW-1 here; a table cannot move it.')
  })

  test('while a table is being taken, requests come in as ever; a second table waits its turn', async () => {
    const holding = await house.connect()
    await holding.beginTransaction()
    const [top] = await house.rows<{ id: number }>("SELECT id FROM place WHERE site_id = 1 AND kind = 'site'")
    await holding.query('SELECT id FROM place WHERE id = ? FOR UPDATE', [top!.id])
    let taken = false
    const waiting = table('places', 'code,name,kind\nWAIT,Waiting room,building\n', { take: true }).then(() => (taken = true))
    const [place] = await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'TID-104'")
    await admin.must(reportRequest, { site: 'SKE', placeId: place!.id, summary: 'Meanwhile', description: 'Reported while a table is taken.' })
    expect(taken).toBe(false)
    await holding.rollback()
    await holding.end()
    await waiting
    expect(await house.rows("SELECT id FROM place WHERE code = 'WAIT'")).toHaveLength(1)
  })

  test('of a register for those alone who keep it there', async () => {
    const [coordinator, clerk, approver] = await Promise.all(
      ['maren.quill', 'petra.lindqvist', 'ines.ferrall'].map((who) => new Client(server.url).signIn(who)),
    )
    const status = async (who: Client | undefined, what: TableKind) =>
      (await who!.call(takeTable, { what, siteId: 1 }, file('code,name,kind\nX-1,X,cost_centre'))).status
    expect([await status(coordinator, 'places'), await status(coordinator, 'payers')]).toEqual([200, 403])
    expect([await status(clerk, 'payers'), await status(clerk, 'places'), await status(approver, 'parts')]).toEqual([200, 403, 403])
  })
})

describe('labels', () => {
  /** The pages as pictures, by a renderer of its own (poppler). */
  function pagesOf(pdf: Uint8Array): string[] {
    const at = path.join(house.folder, `labels-${Date.now()}`)
    writeFileSync(`${at}.pdf`, pdf)
    execFileSync('pdftoppm', ['-r', '200', '-png', `${at}.pdf`, at])
    return execFileSync('sh', ['-c', `ls '${at}'-*.png`])
      .toString()
      .trim()
      .split('\n')
  }
  async function print(kind: string, ids: number[], size: string): Promise<Uint8Array> {
    const coordinator = await new Client(server.url).signIn('maren.quill')
    const reply = await fetch(`${server.url}${printLabels.path.replace(':kind', kind)}?ids=${ids.join(',')}&size=${size}`, {
      headers: { Cookie: coordinator.session },
    })
    expect([reply.status, reply.headers.get('content-type')]).toEqual([200, 'application/pdf'])
    return new Uint8Array(await reply.arrayBuffer())
  }
  /** What an independent decoder (jsQR) reads in the part of the page where a label stands. */
  async function decode(page: string, size: (typeof LABEL_SIZES)[number], index: number): Promise<string | undefined> {
    const { labelSpot } = await import('#core/places')
    const sheet = LABEL_SHEETS[size]
    const spot = labelSpot(sheet, index)
    const px = (mm: number) => Math.round((mm / 25.4) * 200)
    const { data, info } = await sharp(readFileSync(page))
      .extract({ left: px(spot.x), top: px(spot.y), width: px(sheet.width), height: px(sheet.height) })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
    return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data
  }

  test.each(LABEL_SIZES)(
    '%s: every code leads to its own place, decoded from the printed page',
    async (size) => {
      const assets = await house.rows<{ id: number; tag: string; code: string }>(
        "SELECT a.id, a.tag, p.code FROM asset a JOIN place p ON p.id = a.place_id WHERE a.tag LIKE 'F-%' ORDER BY a.tag LIMIT 26",
      )
      const onPage = LABEL_SHEETS[size].columns * LABEL_SHEETS[size].rows
      const pages = pagesOf(
        await print(
          'assets',
          assets.map((row) => row.id),
          size,
        ),
      )
      expect(pages).toHaveLength(Math.ceil(assets.length / onPage))
      for (const index of [0, 1, assets.length - 1]) {
        const address = new URL((await decode(pages[Math.floor(index / onPage)]!, size, index))!)
        expect(address.pathname).toBe('/c/SKE')
        expect(Object.fromEntries(address.searchParams)).toEqual({ place: assets[index]!.code, asset: assets[index]!.tag })
        const spot = await admin.must(readCounterSpot, { site: 'SKE', place: assets[index]!.code, asset: assets[index]!.tag })
        expect(spot.code).toBe(assets[index]!.tag)
      }
    },
    60_000,
  )

  test('code and name stand beside it as text', async () => {
    const rows = await house.rows<{ id: number }>("SELECT id FROM place WHERE code IN ('TID-101', 'LAN-007')")
    const at = path.join(house.folder, 'places.pdf')
    writeFileSync(
      at,
      await print(
        'places',
        rows.map((row) => row.id),
        'medium',
      ),
    )
    const text = execFileSync('pdftotext', ['-layout', at, '-']).toString()
    for (const words of ['TID-101', 'Freezer bank 1', 'LAN-007', 'Lantern House']) expect(text).toContain(words)
  })

  test('of nothing that is there, and of too many, is refused', async () => {
    const coordinator = await new Client(server.url).signIn('maren.quill')
    expect((await coordinator.call(printLabels, { kind: 'places', ids: '999999', size: 'small' })).status).toBe(422)
    expect((await coordinator.call(printLabels, { kind: 'places', ids: Array(501).fill(1).join(','), size: 'small' })).problem.reasons![0]!.field).toBe('ids')
  })
})
