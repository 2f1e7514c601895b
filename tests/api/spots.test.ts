import sharp from 'sharp'
import { listJobs, readJob } from '#contract/field'
import { listOrders, readOrder, readOrderTimeline } from '#contract/orders'
import { listRequests, readRequest, readConversation, trackRequest } from '#contract/requests'
import { readRuleBook, saveRules } from '#contract/setup'
import { addReportPhoto, askedAgain, findSpot, readSpot, reportHere, startHere } from '#contract/spots'
import { castAt, Client, House, orderAt, report } from '../kit'
import type { Cast, Running } from '../kit'

/** On the spot: where a technician stands, reported or started there and then; nobody else’s work, no money, nothing twice. */
let house: House
let server: Running
let cast: Cast
let place: number
let asset: { id: number; tag: string; placeId: number }
beforeAll(async () => {
  house = await House.open('spots', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  place = (await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'GAN-204'"))[0]!.id
  asset = (
    await house.rows<typeof asset>(
      "SELECT a.id, a.tag, a.place_id AS placeId FROM asset a WHERE a.site_id = 1 AND a.retired_at IS NULL AND a.class_code LIKE 'D30%' LIMIT 1",
    )
  )[0]!
})
afterAll(() => house?.close())

let marks = 0
const mark = () => `spot-report-mark-${String(++marks).padStart(6, '0')}`
interface Kept {
  placeId: number | null
  assetId: number | null
  reporterName: string
}
/** The request as the desk reads it, with where it is. */
const requestOf = async (number: string) => {
  const { rows } = await cast.coordinator.must(listRequests, { q: number })
  const [kept] = await house.rows<Kept>('SELECT place_id AS placeId, asset_id AS assetId, reporter_name AS reporterName FROM request WHERE number = ?', [
    number,
  ])
  return { ...(await cast.coordinator.must(readRequest, { id: rows[0]!.id })), ...kept! }
}
const picture = async () =>
  new Blob([
    new Uint8Array(
      await sharp({ create: { width: 60, height: 30, channels: 3, background: '#fff' } })
        .jpeg()
        .toBuffer(),
    ),
  ])
const sentence = (reply: { problem: { detail?: string; reasons?: { sentence: string }[] } }) => reply.problem.reasons?.[0]?.sentence ?? reply.problem.detail

describe('where one stands', () => {
  test('is found by a whole code or a part of its name, of the own site alone', async () => {
    expect((await cast.technician.must(findSpot, { q: 'gan204' })).rows[0]).toMatchObject({ code: 'GAN-204', assetId: null })
    expect((await cast.technician.must(findSpot, { q: asset.tag })).rows[0]).toMatchObject({ assetId: asset.id })
    expect((await cast.technician.must(findSpot, { q: 'MUS-' })).rows).toEqual([])
    expect((await cast.technician.must(findSpot, { q: 'xyzzyq' })).rows).toEqual([])
    expect((await cast.anybody.call(findSpot, { q: 'GAN' })).status).toBe(401)
    expect((await cast.coordinator.call(readSpot, { placeId: place })).status).toBe(403)
  })

  test('shows what was asked there already as strangers read it, and what was done; of others’ jobs nothing more', async () => {
    const told = await report(cast, { placeId: place, summary: 'Blind of the left window is torn', description: 'Call Aoife on 5512, please' })
    const job = await orderAt(cast, 'dispatched')
    await house.rows('UPDATE `work_order` SET place_id = ? WHERE id = ?', [place, job.id])
    const here = await cast.technician.must(readSpot, { placeId: place })
    expect(here.known.map(({ id }) => id)).toContain(told.id)
    expect(here.mine.map(({ visitId }) => visitId)).toContain(job.visitId)
    const stranger = await new Client(server.url).signIn('fintan.rosewarne')
    const theirs = await stranger.must(readSpot, { placeId: place })
    expect(theirs.mine).toEqual([])
    const words = JSON.stringify(theirs)
    for (const secret of ['Aoife', '5512', 'torn', 'Minor', 'payer']) expect(words).not.toContain(secret)
    expect((await cast.technician.must(readSpot, { assetId: asset.id })).earlier.every(({ finishedAt }) => finishedAt)).toBe(true)
  })

  test('of another site, or gone, is not there', async () => {
    const [theirs] = await house.rows<{ id: number }>("SELECT id FROM place WHERE code LIKE 'MUS%' ORDER BY id DESC LIMIT 1")
    expect((await cast.technician.call(readSpot, { placeId: theirs!.id })).status).toBe(422)
    expect((await cast.technician.call(readSpot, { placeId: 99_999 })).status).toBe(422)
    expect((await cast.technician.call(readSpot, {})).status).toBe(400)
  })
})

describe('reported', () => {
  test('it is a request like any other, with who asked, its photos and when it was said', async () => {
    const named = mark()
    const sent = {
      mark: named,
      assetId: asset.id,
      text: 'It rattles when it starts. Since Friday, says the lab.',
      asker: 'Nuala Ingleby',
      askerEmail: 'nuala@reporter.example',
      happenedAt: '2026-11-23T08:15:00Z',
    }
    const { number } = await cast.technician.must(reportHere, sent)
    await cast.technician.must(addReportPhoto, { mark: named }, { file: await picture() })
    const request = await requestOf(number)
    expect(request).toMatchObject({
      summary: 'It rattles when it starts',
      channel: 'field',
      assetId: asset.id,
      placeId: asset.placeId,
      reporterName: 'Nuala Ingleby',
    })
    expect(request.receivedAt).toBe('2026-11-23T08:15:00.000Z')
    expect(request.attachments).toHaveLength(1)
    expect((await house.mail('nuala@reporter.example')).subject).toContain(number)
  })

  test('with a code nobody knows, what was scanned stands in its words; one that is known is its place', async () => {
    const { number } = await cast.technician.must(reportHere, { mark: mark(), code: 'KEL-9999', text: 'The door sticks' })
    expect(await requestOf(number)).toMatchObject({ placeId: null, description: 'The door sticks\nWhere: KEL-9999' })
    const known = await cast.technician.must(reportHere, { mark: mark(), code: 'gan-204', text: 'The door sticks' })
    expect(await requestOf(known.number)).toMatchObject({ placeId: place, description: 'The door sticks' })
    const tagged = await cast.technician.must(reportHere, { mark: mark(), code: asset.tag, text: 'It leaks' })
    expect(await requestOf(tagged.number)).toMatchObject({ assetId: asset.id })
  })

  test('sent twice it is there once; photos of it are nobody else’s to add; nothing is half kept', async () => {
    const named = mark()
    const [one, other] = await Promise.all([1, 2].map(() => cast.technician.call(reportHere, { mark: named, placeId: place, text: 'A tile is loose' })))
    expect([one!.status, other!.status].sort()).toEqual([200, 422])
    const { rows } = await cast.coordinator.must(listRequests, { q: 'A tile is loose' })
    expect(rows).toHaveLength(1)
    const stranger = await new Client(server.url).signIn('fintan.rosewarne')
    expect((await stranger.call(addReportPhoto, { mark: named }, { file: await picture() })).status).toBe(404)
    expect((await cast.technician.call(reportHere, { mark: mark(), placeId: place, text: ' ' })).problem.reasons![0]!.field).toBe('text')
    expect((await cast.technician.call(reportHere, { mark: mark(), placeId: place, text: 'x', askerEmail: 'no' })).problem.reasons![0]!.field).toBe(
      'askerEmail',
    )
  })

  test('what is known already is said again: the desk reads it, the reporter does not', async () => {
    const told = await report(cast, { placeId: place, summary: 'The tap in the corner drips' })
    await cast.technician.must(askedAgain, { requestId: told.id, text: 'By the warden' })
    const said = await cast.coordinator.must(readConversation, { id: told.id })
    expect(JSON.stringify(said)).toContain('Asked for again on the spot. By the warden')
    expect(JSON.stringify(await cast.anybody.must(trackRequest, { token: told.token }))).not.toContain('warden')
    const away = await new Client(server.url).signIn('fintan.rosewarne')
    expect((await away.call(askedAgain, { requestId: 999_999 })).status).toBe(404)
  })
})

describe('started', () => {
  test('request, order, visit and clock are there at once; it is led by nobody yet and seen in the field', async () => {
    const technician = await new Client(server.url).signIn('sunniva.teague')
    const { visitId, number } = await technician.must(startHere, { mark: mark(), placeId: place, text: 'Loose handle. Quick fix.', asker: 'The warden' })
    const job = await technician.must(readJob, { visitId })
    expect(job).toMatchObject({ number, summary: 'Loose handle', orderState: 'on_job', visitState: 'on_site', running: { kind: 'work' } })
    const { id } = (await cast.coordinator.must(listOrders, { q: number })).rows[0]!
    const order = await cast.coordinator.must(readOrder, { id })
    expect(order).toMatchObject({ state: 'on_job', leadId: null, estimateMinor: 15_000, priority: 'routine', contactName: 'The warden' })
    expect((await house.rows<{ id: number }>('SELECT place_id AS id FROM `work_order` WHERE id = ?', [id]))[0]!.id).toBe(place)
    const kinds = (await cast.coordinator.must(readOrderTimeline, { id })).entries.map(({ kind }) => kind)
    expect(kinds).toEqual(expect.arrayContaining(['order.create', 'order.begin', 'order.start', 'field.stint']))
    expect(kinds).not.toContain('order.approve')
    expect((await technician.must(listJobs, { range: 'today' })).rows.map((row) => row.visitId)).toContain(visitId)
    expect(JSON.stringify(job)).not.toContain('15000')
    // One clock at a time; what could not be started is not reported either.
    const before = await house.rows('SELECT id FROM request')
    const second = await technician.call(startHere, { mark: mark(), placeId: place, text: 'Another' })
    expect([second.status, sentence(second)]).toEqual([422, `Your clock is running on ${number}. Stop it there first.`])
    expect(await house.rows('SELECT id FROM request')).toHaveLength(before.length)
  })

  test('not where nobody pays, not elsewhere, not by who is no technician, and not where the site does not let it', async () => {
    const [free] = await house.rows<{ id: number }>("SELECT id FROM place WHERE site_id = 1 AND kind = 'site'")
    const start = (more: object) => cast.technician.call(startHere, { mark: mark(), text: 'Something', ...more })
    expect(sentence(await start({ placeId: free!.id }))).toContain('Nobody is known to pay')
    expect((await start({ placeId: 99_999 })).problem.reasons![0]!.field).toBe('placeId')
    expect((await cast.coordinator.call(startHere, { mark: mark(), placeId: place, text: 'x' })).status).toBe(403)
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    const { versions, book } = await admin.must(readRuleBook, { siteId: 1 })
    await admin.must(saveRules, { siteId: 1, version: versions.planning, section: 'planning', content: { ...book.planning, onSpotMinor: null } })
    expect((await cast.technician.must(readSpot, { placeId: place })).whyNotStart).toContain('Nothing is started on the spot')
    expect(sentence(await start({ placeId: place }))).toContain('Nothing is started on the spot')
  })
})
