import PDFDocument from 'pdfkit'
import sharp from 'sharp'
import {
  addDocument,
  addDocumentVersion,
  editDocument,
  listApprovalDocuments,
  listDocuments,
  listDocumentsOf,
  listJobDocuments,
  listPassDocuments,
  listTrackedDocuments,
  readDocumentFile,
  readJobDocument,
  readPassDocument,
  readTrackedDocument,
} from '#contract/documents'
import type { DocumentRow } from '#contract/documents'
import { editAsset, readAsset } from '#contract/assets'
import { search } from '#contract/lists'
import { editOrder, readOrder, submitOrder } from '#contract/orders'
import { listNotices } from '#contract/people'
import { readPortraitTimeline } from '#contract/portraits'
import { acceptRequest, readRequest, triageRequest } from '#contract/requests'
import { accepted, approved, castAt, Client, complete, dispatched, House, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Documents: kept with anything, in versions, seen by whom they are for, found by their words, reminded of before they end. */
let house: House
let server: Running
let cast: Cast
let admin: Client
/** Of the second site alone. */
let elsewhere: Client
let chiller: number

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!

beforeAll(async () => {
  house = await House.open('documents', { mail: true })
  const { site } = await one<{ site: number }>("SELECT site_id AS site FROM place WHERE code = 'HAT'")
  await house.rows("UPDATE account_role SET site_id = ? WHERE account_id = (SELECT id FROM account WHERE email = 'yusuf.adeyemi-rourke@skerry.example')", [
    site,
  ])
  server = await house.start()
  cast = await castAt(server.url)
  ;[admin, elsewhere] = await Promise.all([new Client(server.url).signIn('wendeline.stroud'), new Client(server.url).signIn('yusuf.adeyemi-rourke')])
  chiller = (await one<{ id: number }>("SELECT id FROM asset WHERE tag = 'CH-2'")).id
})
afterAll(() => house?.close())

async function pdf(...pages: string[]): Promise<Blob> {
  const document = new PDFDocument()
  const chunks: Buffer[] = []
  document.on('data', (chunk: Buffer) => chunks.push(chunk))
  const ended = new Promise<void>((resolve) => document.on('end', resolve))
  pages.forEach((text, index) => (index ? document.addPage() : document).text(text))
  document.end()
  await ended
  return new Blob([new Uint8Array(Buffer.concat(chunks))])
}
const text = (words: string) => new Blob([words])
const add = (more: object = {}, file: Blob = text('Nothing much'), who = cast.coordinator) =>
  who.call(addDocument, { on: 'assets', id: chiller, kind: 'other', name: 'note.txt', ...more }, { file })
const added = async (more: object = {}, file?: Blob): Promise<DocumentRow> => (await add(more, file)).body

describe('kept with what it is of', () => {
  test('it is called as its file is, told of on the timeline, and given back byte for byte', async () => {
    const content = await pdf('Charge of refrigerant', 'Zephyrine valve, second page')
    const row = await added({ kind: 'manual', name: 'charge-sheet.pdf' }, content)
    expect(row).toMatchObject({
      title: 'charge-sheet',
      kind: 'manual',
      on: 'assets',
      recordId: chiller,
      standing: 'valid',
      audience: [],
      mayEdit: true,
      version: 1,
    })
    expect(row.files).toEqual([expect.objectContaining({ number: 1, name: 'charge-sheet.pdf', shows: 'pdf', bytes: content.size, by: 'Maren Quill' })])
    const reply = await fetch(`${server.url}/api/documents/files/${row.files[0]!.id}`, {
      headers: { Cookie: (cast.coordinator as unknown as { cookie: string }).cookie },
    })
    expect(Buffer.from(await reply.arrayBuffer()).equals(Buffer.from(await content.arrayBuffer()))).toBe(true)
    // No browser runs or opens it by itself.
    expect(reply.headers.get('content-type')).toBe('application/octet-stream')
    expect(reply.headers.get('content-disposition')).toContain('attachment')
    expect(reply.headers.get('x-content-type-options')).toBe('nosniff')
    const { entries } = await cast.coordinator.must(readPortraitTimeline, { register: 'assets', id: chiller })
    expect(entries.some(({ kind }) => kind === 'document.add')).toBe(true)
  })

  test('a newer version comes first and the earlier ones stay; of two at once one is told', async () => {
    const row = await added({ title: 'Wiring' })
    const replies = await Promise.all(
      [1, 2].map((n) =>
        cast.coordinator.call(addDocumentVersion, { id: row.id, version: row.version, name: `wiring-${n}.txt` }, { file: text(`Version ${n}`) }),
      ),
    )
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
    const { rows } = await cast.coordinator.must(listDocumentsOf, { on: 'assets', id: chiller })
    expect(rows.find(({ id }) => id === row.id)!.files.map(({ number }) => number)).toEqual([2, 1])
  })

  test('what is said of it is changed by version, put away and taken out again', async () => {
    const row = await added({ title: 'Old name', validUntil: '2027-01-31', remindDays: 20 })
    const changed = await cast.coordinator.must(editDocument, { id: row.id, version: 1, title: 'New name', audience: ['vendor', 'technician'] })
    expect(changed).toMatchObject({ title: 'New name', audience: ['vendor', 'technician'], version: 2 })
    expect((await cast.coordinator.call(editDocument, { id: row.id, version: 1, title: 'Third' })).status).toBe(409)
    const away = await cast.coordinator.must(editDocument, { id: row.id, version: 2, retired: true })
    expect(away.retired).toBe(true)
    const { rows } = await cast.coordinator.must(listDocumentsOf, { on: 'assets', id: chiller })
    expect(rows.at(-1)!.id).toBe(row.id)
    expect((await cast.coordinator.must(editDocument, { id: row.id, version: 3, retired: false })).retired).toBe(false)
    // The same again says nothing new.
    const same = await cast.coordinator.must(editDocument, { id: row.id, version: 4, title: 'New name' })
    expect(same.version).toBe(4)
  })

  test.each([
    ['an end before its beginning', { validFrom: '2026-05-01', validUntil: '2026-04-30' }, 422, 'validUntil'],
    ['a reminder of no end', { remindDays: 10 }, 422, 'remindDays'],
    ['no kind', { kind: undefined }, 400, 'kind'],
    ['a kind nobody knows', { kind: 'poem' }, 400, 'kind'],
    ['somebody unknown who may see it', { audience: 'technician,king' }, 400, 'audience'],
    ['a day that is none', { validUntil: '2026-02-30' }, 400, 'validUntil'],
  ])('%s is refused at its field, and nothing is kept', async (_, more, status, field) => {
    const before = await one<{ n: string }>('SELECT (SELECT count(*) FROM document) + (SELECT count(*) FROM stored_file) AS n')
    const reply = await add(more)
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([status, field])
    expect(await one('SELECT (SELECT count(*) FROM document) + (SELECT count(*) FROM stored_file) AS n')).toEqual(before)
  })

  test('no file, an empty one, and a picture that is none are refused at the file', async () => {
    const empty = await add({}, new Blob([]))
    expect([empty.status, empty.problem.reasons![0]!.field]).toEqual([422, 'file'])
    const none = await cast.coordinator.call(addDocument, { on: 'assets', id: chiller, kind: 'other' })
    expect([none.status, none.problem.reasons![0]!.field]).toEqual([422, 'file'])
    const fake = await add({ kind: 'photo', name: 'plate.jpg' }, text('not a picture'))
    expect([fake.status, fake.problem.reasons![0]!.field]).toEqual([422, 'file'])
  })

  test('a PDF that is broken or hostile is kept without its words, and the server goes on', async () => {
    for (const words of ['%PDF-1.7\n1 0 obj << /Length 99999999 >> stream', `%PDF-1.4\n${'['.repeat(200_000)}`]) {
      const reply = await add({ name: 'odd.pdf', title: 'Odd one' }, text(words))
      expect([reply.status, reply.body.files[0]!.shows]).toEqual([200, 'pdf'])
    }
    expect((await fetch(`${server.url}/api/health`)).status).toBe(200)
  })

  test('a page that would run something is only ever saved', async () => {
    const row = await added({ name: 'page.html' }, text('<script>alert(1)</script>'))
    expect(row.files[0]!.shows).toBe('nothing')
    const reply = await cast.coordinator.call(readDocumentFile, { fileId: row.files[0]!.id })
    expect(reply.headers.get('content-type')).toBe('application/octet-stream')
    expect(reply.headers.get('content-security-policy')).toContain('sandbox')
  })

  test('pictures are written anew without where they were taken, and have a small copy', async () => {
    const photo = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#456' } })
      .withExif({ IFD0: { Copyright: 'Somebody' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '53/1 17/1 0/1' } })
      .jpeg()
      .toBuffer()
    const row = await added({ kind: 'photo', name: 'plate.jpg' }, new Blob([new Uint8Array(photo)]))
    expect(row.files[0]!.shows).toBe('picture')
    const cookie = (cast.coordinator as unknown as { cookie: string }).cookie
    const read = async (query = '') =>
      Buffer.from(await (await fetch(`${server.url}/api/documents/files/${row.files[0]!.id}${query}`, { headers: { Cookie: cookie } })).arrayBuffer())
    expect((await sharp(await read()).metadata()).exif).toBeUndefined()
    expect((await sharp(await read('?small=true')).metadata()).width).toBe(320)
  })
})

describe('who may', () => {
  test('each kind of thing is kept by those who may change it', async () => {
    const vendor = await one<{ id: number }>('SELECT id FROM vendor LIMIT 1')
    const payer = await one<{ id: number }>('SELECT id FROM payer LIMIT 1')
    expect((await add({ on: 'vendors', id: vendor.id })).status).toBe(200)
    expect((await add({ on: 'vendors', id: vendor.id }, text('x'), cast.clerk)).status).toBe(403)
    expect((await add({ on: 'payers', id: payer.id }, text('x'), cast.clerk)).status).toBe(200)
    expect((await add({ on: 'payers', id: payer.id })).status).toBe(403)
    expect((await add({ on: 'assets', id: chiller }, text('x'), cast.technician)).status).toBe(403)
    expect((await add({ on: 'assets', id: 9_999_999 })).status).toBe(404)
    const order = await one<{ id: number }>("SELECT id FROM work_order WHERE state = 'closed' LIMIT 1")
    expect((await add({ on: 'orders', id: order.id, title: 'Completion' })).status).toBe(200)
  })

  test('who works at the other site sees, finds and changes none of it, and it goes along when the asset does', async () => {
    const row = await added({ title: 'Quillwort memo', name: 'quillwort.txt' }, text('Only for Tidehall'))
    expect((await elsewhere.call(listDocumentsOf, { on: 'assets', id: chiller })).status).toBe(404)
    expect((await elsewhere.call(readDocumentFile, { fileId: row.files[0]!.id })).status).toBe(404)
    expect((await elsewhere.call(editDocument, { id: row.id, version: 1, title: 'x' })).status).toBe(404)
    expect((await elsewhere.call(addDocumentVersion, { id: row.id, version: 1 }, { file: text('x') })).status).toBe(404)
    expect((await elsewhere.must(listDocuments, { q: 'quillwort' })).rows).toEqual([])
    expect((await elsewhere.must(search, { q: 'quillwort' })).rows).toEqual([])
    const hatchery = await one<{ id: number; site_id: number }>("SELECT id, site_id FROM place WHERE kind = 'space' AND site_id <> 1 LIMIT 1")
    await house.rows('UPDATE asset SET site_id = ?, place_id = ? WHERE id = ?', [hatchery.site_id, hatchery.id, chiller])
    expect((await elsewhere.must(listDocuments, { q: 'quillwort' })).rows.map(({ id }) => id)).toEqual([row.id])
    const home = await one<{ id: number }>("SELECT id FROM place WHERE code = 'PUM-101'")
    await house.rows('UPDATE asset SET site_id = 1, place_id = ? WHERE id = ?', [home.id, chiller])
  })
})

describe('found by its words', () => {
  const found = async (q: string) => (await cast.coordinator.must(search, { q })).rows.filter(({ type }) => type === 'document')

  test('inside a PDF, a text, in its title and its file name; not after it was put away', async () => {
    const row = await added({ title: 'Bearing list', name: 'spindle_overview.pdf' }, await pdf('Front', 'The plummerblock is greased monthly'))
    const note = await added({ title: 'Note', name: 'n.txt' }, text('The coelacanth tank drains slowly'))
    expect(await found('plummerblock')).toEqual([
      expect.objectContaining({ id: chiller, on: 'assets', title: 'Bearing list', snippet: expect.stringContaining('plummerblock') as string }),
    ])
    expect((await found('coelacanth tank')).map(({ title }) => title)).toEqual(['Note'])
    expect((await found('spindle')).map(({ title }) => title)).toEqual(['Bearing list'])
    expect((await found('bearing list')).map(({ title }) => title)).toContain('Bearing list')
    await cast.coordinator.must(addDocumentVersion, { id: note.id, version: 1, name: 'n.txt' }, { file: text('Nothing about fish') })
    expect(await found('coelacanth')).toEqual([])
    await cast.coordinator.must(editDocument, { id: row.id, version: 1, retired: true })
    expect(await found('plummerblock')).toEqual([])
  })

  test('the list of all of them begins with what ends first, and is narrowed by kind, validity and words', async () => {
    const all: DocumentRow[] = []
    let after: string | undefined
    do {
      const page = await cast.coordinator.must(listDocuments, { limit: 10, ...(after ? { after } : {}) })
      all.push(...page.rows)
      after = page.next ?? undefined
    } while (after)
    const ends = all.map(({ validUntil }) => validUntil ?? '9999-12-31')
    expect(ends).toEqual([...ends].sort())
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length)
    for (const standing of ['coming', 'valid', 'ending', 'ended'] as const) {
      const { rows } = await cast.coordinator.must(listDocuments, { standing, limit: 100 })
      expect(rows.map(({ id }) => id)).toEqual(all.filter((row) => row.standing === standing).map(({ id }) => id))
    }
    const { rows } = await cast.coordinator.must(listDocuments, { kind: 'contract', q: 'lifts' })
    expect(rows.map(({ kind, called }) => [kind, called])).toEqual([['contract', 'Halyard Lifts']])
  })
})

describe('outside the desk', () => {
  /** One of each kind of reader, of the order, its asset, the floor above, and one that has ended. */
  const everywhere = async (orderId: number) => {
    const floor = await one<{ id: number }>("SELECT id FROM place WHERE code = 'PUM-1'")
    const all = ['technician', 'vendor', 'payer', 'reporter'] as const
    for (const who of all) {
      await added({ on: 'orders', id: orderId, title: `Order for ${who}`, audience: who })
      await added({ on: 'places', id: floor.id, title: `Floor for ${who}`, audience: who })
      await added({ title: `Asset for ${who}`, audience: who })
      await added({ title: `Ended for ${who}`, audience: who, validFrom: '2025-01-01', validUntil: '2026-11-22' })
      await added({ title: `Coming for ${who}`, audience: who, validFrom: '2026-11-24' })
    }
  }
  const mine = (rows: { title: string }[]) => rows.map(({ title }) => title).filter((title) => / for /.test(title))
  let reported: Awaited<ReturnType<typeof report>>
  let orderId: number

  beforeAll(async () => {
    const home = await one<{ id: number }>("SELECT id FROM place WHERE code = 'PUM-101'")
    reported = await report(cast, { placeId: home.id, assetId: chiller, summary: 'Chiller 2 whistles' })
    const { version } = await cast.coordinator.must(readRequest, { id: reported.id })
    const sheet = await cast.coordinator.must(triageRequest, {
      id: reported.id,
      version,
      categoryId: 1,
      consequence: 'one_person',
      urgency: 'today',
      payerId: 3,
    })
    orderId = (await cast.coordinator.must(acceptRequest, { id: reported.id, version: sheet.version })).orderId
    await everywhere(orderId)
  })

  test('a technician sees those of the job, its machine and the floor, while they hold', async () => {
    await approved(cast, orderId)
    const visitId = await dispatched(cast, orderId)
    const { rows } = await cast.technician.must(listJobDocuments, { visitId })
    expect(mine(rows)).toEqual(['Asset for technician', 'Floor for technician', 'Order for technician'])
    const [row] = rows.filter(({ title }) => title === 'Order for technician')
    expect((await cast.technician.call(readJobDocument, { visitId, fileId: row!.fileId })).text).toBe('Nothing much')
    const other = (await cast.coordinator.must(listDocumentsOf, { on: 'orders', id: orderId })).rows.find(({ title }) => title === 'Order for vendor')!
    expect((await cast.technician.call(readJobDocument, { visitId, fileId: other.files[0]!.id })).status).toBe(404)
    expect((await cast.technician.call(readDocumentFile, { fileId: row!.fileId })).status).toBe(403)
    const stranger = await new Client(server.url).signIn('fintan.rosewarne')
    expect((await stranger.call(listJobDocuments, { visitId })).status).toBe(404)
  })

  test('who reported sees those for reporters, through the link alone', async () => {
    const { rows } = await cast.anybody.must(listTrackedDocuments, { token: reported.token })
    expect(mine(rows)).toEqual(['Asset for reporter', 'Floor for reporter'])
    const row = rows.find(({ title }) => title === 'Asset for reporter')!
    expect(Object.keys(row).sort()).toEqual(['bytes', 'fileId', 'kind', 'name', 'shows', 'title'])
    expect((await cast.anybody.call(readTrackedDocument, { token: reported.token, fileId: row.fileId })).status).toBe(200)
    const technicians = (await cast.coordinator.must(listDocumentsOf, { on: 'assets', id: chiller })).rows.find(
      ({ title }) => title === 'Asset for technician',
    )!
    expect((await cast.anybody.call(readTrackedDocument, { token: reported.token, fileId: technicians.files[0]!.id })).status).toBe(404)
    expect((await cast.anybody.call(listTrackedDocuments, { token: 'x'.repeat(43) })).status).toBe(404)
  })

  test('a vendor sees those for vendors by the pass, its own contract where that is shown to it, and nothing once the pass is over', async () => {
    const again = await report(cast, { placeId: 20, summary: 'Lift stops between floors' })
    const id = await accepted(cast, again.id)
    const lift = await one<{ id: number; vendor_id: number | null }>("SELECT id, vendor_id FROM asset WHERE tag = 'LIFT-1'")
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), assetId: lift.id })
    await approved(cast, id)
    const vendor = await one<{ id: number; email: string }>('SELECT id, email FROM vendor WHERE id = ?', [lift.vendor_id ?? 1])
    await added({ on: 'vendors', id: vendor.id, title: 'House rules for vendors', audience: 'vendor' })
    await dispatched(cast, id, { vendorId: vendor.id })
    const mail = await house.mail(vendor.email, ({ text }) => text.includes('/p/'))
    const token = /\/p\/([\w-]{43})/.exec(mail.text)![1]!
    const { rows } = await cast.anybody.must(listPassDocuments, { token })
    expect(rows.map(({ title }) => title)).toEqual(['House rules for vendors', 'Thorough examination of the lift', 'Where to shut off, Tidehall'])
    expect((await cast.anybody.call(readPassDocument, { token, fileId: rows[1]!.fileId })).status).toBe(200)
    await house.rows("UPDATE vendor_pass SET expires_at = '2026-01-01'")
    expect((await cast.anybody.call(listPassDocuments, { token })).status).toBe(404)
    expect((await cast.anybody.call(readPassDocument, { token, fileId: rows[1]!.fileId })).status).toBe(404)
  })

  test('who is asked to pay sees those for payers by the link that asks', async () => {
    const again = await report(cast, { placeId: 20, summary: 'Tiles come off' })
    const id = await accepted(cast, again.id)
    await added({ on: 'orders', id, title: 'Offer', audience: 'payer', kind: 'contract' })
    await added({ on: 'orders', id, title: 'Notes of the desk' })
    await cast.coordinator.must(editOrder, { id, version: await version(cast, id), ...complete })
    await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
    const { number } = await cast.coordinator.must(readOrder, { id })
    const mail = await house.mail('ines.ferrall@skerry.example', ({ text }) => text.includes(number) && text.includes('/a/'))
    const token = /\/a\/([\w-]{43})/.exec(mail.text)![1]!
    expect((await cast.anybody.must(listApprovalDocuments, { token })).rows.map(({ title }) => title)).toEqual(['Offer'])
  })
})

describe('before it ends', () => {
  test('who keeps it is told here, who added it and the desk by mail, once for each end', async () => {
    const row = await added({ title: 'Gangway certificate', kind: 'certificate', validUntil: '2026-12-10', remindDays: 30 })
    const mail = await house.mail('maren.quill@skerry.example', ({ subject }) => subject.includes('Gangway certificate'))
    expect(mail.text).toContain('valid until 2026-12-10')
    expect(mail.text).toContain(`/registers/assets/${chiller}`)
    await house.mail('desk-ske@skerry.example', ({ subject }) => subject.includes('Gangway certificate'))
    const notices = (await admin.must(listNotices, {})).rows.filter(({ sentence }) => sentence.includes('Gangway certificate'))
    expect(notices).toEqual([expect.objectContaining({ leadsTo: `/registers/assets/${chiller}` })])
    await new Promise((resolve) => setTimeout(resolve, 1_500))
    const { rows } = { rows: await house.rows("SELECT id FROM event WHERE kind = 'document.ending' AND details LIKE '%Gangway%'") }
    expect(rows).toHaveLength(1)
    expect((await one<{ of: Date }>('SELECT reminded_of AS `of` FROM document WHERE id = ?', [row.id])).of).not.toBeNull()
  }, 90_000)
})

test('an asset that is retired keeps its documents', async () => {
  const made = await added({ title: 'Kept anyway' })
  const sheet = await cast.coordinator.must(readAsset, { id: chiller })
  await cast.coordinator.must(editAsset, { id: chiller, version: sheet.version, note: 'Soon gone' })
  await house.rows('UPDATE asset SET retired_at = now() WHERE id = ?', [chiller])
  const { rows } = await cast.coordinator.must(listDocumentsOf, { on: 'assets', id: chiller })
  expect(rows.map(({ id }) => id)).toContain(made.id)
  await house.rows('UPDATE asset SET retired_at = NULL WHERE id = ?', [chiller])
})
