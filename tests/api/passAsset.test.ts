import { addDowntime, readDowntimes } from '#contract/downtimes'
import { readCrewNow, readLoneWork, setLoneWork } from '#contract/field'
import { addMeter, readMeters } from '#contract/meters'
import { readOrder, readOrderTimeline } from '#contract/orders'
import * as pass from '#contract/vendors'
import { castAt, Client, dispatched, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** By the pass, what hangs on the asset and on the clock: meters, downtime, own time put right, working alone. */
let house: House
let server: Running
let cast: Cast
let vendor: Client
let administrator: Client
let assetId: number
beforeAll(async () => {
  house = await House.open('passAsset', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  vendor = new Client(server.url)
  administrator = await new Client(server.url).signIn('wendeline.stroud')
  const [{ id }] = (await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'GEN-1'")) as [{ id: number }]
  assetId = id
  await house.rows('DELETE FROM reading')
  await house.rows('DELETE FROM meter')
})
afterAll(() => house?.close())

let count = 0
/** A job on the generator, with a vendor of its own and their pass. */
async function sent(prepare: (orderId: number) => Promise<unknown> = () => Promise.resolve()) {
  const name = `Generator firm ${++count}`
  const email = `firm-${count}@vendor.example`
  const { id: vendorId } = await cast.coordinator.must(pass.addVendor, { name, email, phone: '+353 1 555 01 40' })
  const { id } = await orderAt(cast, 'ready')
  await house.rows('UPDATE work_order SET asset_id = ? WHERE id = ?', [assetId, id])
  await prepare(id)
  const visitId = await dispatched(cast, id, { vendorId })
  const { number } = await cast.coordinator.must(readOrder, { id })
  const { text } = await house.mail(email, (mail) => mail.subject.includes(number))
  return { id, name, visitId, token: /\/p\/([\w-]+)/.exec(text)![1]! }
}
const reasons = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)
const mark = () => `pass-asset-${String(++count).padStart(10, '0')}`

test('meters are offered, read under the name of the vendor, and asked about when they are not like the others', async () => {
  await administrator.must(addMeter, { assetId, name: 'Running hours', unit: 'h' })
  const { token, id, name } = await sent()
  const [meter] = (await vendor.must(pass.readPass, { token })).meters
  expect(meter).toMatchObject({ name: 'Running hours', tag: 'GEN-1', readings: [], readHere: null })
  const read = (value: string, more: object = {}) => vendor.call(pass.addPassReading, { token, meterId: meter!.id, value, ...more })
  expect((await read('1200')).status).toBe(200)
  expect(await reasons(read('900'))).toEqual(['reading_below'])
  const taken = await vendor.must(pass.addPassReading, { token, meterId: meter!.id, value: '900', answer: 'exchanged' })
  expect(taken.meters[0]).toMatchObject({ readHere: '900' })
  const { rows } = await cast.coordinator.must(readMeters, { assetId })
  expect(rows[0]!.readings.map((one) => [one.value, one.who, one.order?.id])).toEqual([
    ['900', name, id],
    ['1200', name, id],
  ])
  // A meter of something else is not theirs, nor is anything said twice of a number that is none.
  const [other] = (await administrator.must(addMeter, { assetId: assetId + 1, name: 'Starts', unit: 'n' })).rows
  expect(await reasons(vendor.call(pass.addPassReading, { token, meterId: other!.id, value: '5' }))).toEqual(['meter_unknown'])
  expect((await read('much')).status).toBe(400)
})

test('downtime: their own from and to; what the desk wrote down they end, and change nothing else of it', async () => {
  const { token, id } = await sent()
  const own = mark()
  const from = '2026-11-23T07:00:00.000Z'
  const { downtimes } = await vendor.must(pass.sayPassDowntime, { token, mark: own, fromAt: from, reason: 'Starter stuck' })
  expect(downtimes).toEqual([{ mark: own, fromAt: from, untilAt: null, reason: 'Starter stuck' }])
  await vendor.must(pass.sayPassDowntime, { token, mark: own, fromAt: from, untilAt: '2026-11-23T09:00:00Z', reason: 'Starter stuck' })
  await cast.coordinator.must(addDowntime, { assetId, fromAt: '2026-11-23T10:00:00Z', reason: 'Trips under load' })
  const lasting = (await vendor.must(pass.readPass, { token })).downtimes.find(({ untilAt }) => untilAt === null)!
  expect(lasting).toEqual({ mark: lasting.mark, fromAt: '2026-11-23T10:00:00.000Z', untilAt: null, reason: 'Trips under load' })
  expect(await reasons(vendor.call(pass.sayPassDowntime, { token, mark: lasting.mark, fromAt: from, reason: 'Mine' }))).toEqual(['not_yours'])
  const until = '2026-11-23T10:15:00.000Z'
  await vendor.must(pass.sayPassDowntime, { token, mark: lasting.mark, fromAt: from, untilAt: until, reason: 'Mine' })
  const { rows } = await cast.coordinator.must(readDowntimes, { assetId })
  expect(rows.map(({ fromAt, untilAt, reason, order }) => [fromAt, untilAt, reason, order?.id ?? null])).toEqual([
    ['2026-11-23T10:00:00.000Z', until, 'Trips under load', null],
    [from, '2026-11-23T09:00:00.000Z', 'Starter stuck', id],
  ])
  expect(await reasons(vendor.call(pass.sayPassDowntime, { token, mark: lasting.mark, fromAt: from, untilAt: from }))).toEqual(['ended'])
  // Over other time of the same asset it does not lie, and another pass does not move it.
  expect(await reasons(vendor.call(pass.sayPassDowntime, { token, mark: mark(), fromAt: from }))).toHaveLength(1)
  const other = await sent()
  expect(await reasons(vendor.call(pass.sayPassDowntime, { token: other.token, mark: own, fromAt: from, untilAt: until }))).toEqual(['ended'])
})

test('own time is put right on the same day with a reason; not over other time of the visit, and nobody else’s', async () => {
  const { token, id, name } = await sent()
  await vendor.must(pass.switchVendorStint, { token, kind: 'travel' })
  await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
  await vendor.must(pass.stopVendorClock, { token })
  const [travel, work] = (await vendor.must(pass.readPass, { token })).stints
  const right = (stintId: number, startAt: string, endAt: string, reason = 'Started the clock late') =>
    vendor.call(pass.correctVendorStint, { token, stintId, startAt, endAt, reason })
  const { stints } = (await right(travel!.id, '2026-11-23T08:30:00Z', '2026-11-23T09:00:00Z')).body
  expect(stints.find((one) => one.id === travel!.id)!.minutes).toBe(30)
  expect((await right(work!.id, '2026-11-23T09:00:00Z', '2026-11-23T10:20:00Z')).body.stints.find((one) => one.id === work!.id)!.minutes).toBe(80)
  expect(await reasons(right(work!.id, '2026-11-23T08:45:00Z', '2026-11-23T10:20:00Z'))).toEqual(['overlaps'])
  expect(await reasons(right(work!.id, '2026-11-23T10:00:00Z', '2026-11-23T09:00:00Z'))).toEqual(['ends_before'])
  expect((await right(work!.id, '2026-11-23T09:00:00Z', '2026-11-23T10:00:00Z', ' ')).status).toBe(400)
  const other = await sent()
  const theirs = { token: other.token, stintId: work!.id, startAt: '2026-11-23T09:00:00Z', endAt: '2026-11-23T10:00:00Z', reason: 'x' }
  expect((await vendor.call(pass.correctVendorStint, theirs)).status).toBe(404)
  const said = (await cast.coordinator.must(readOrderTimeline, { id })).entries.filter(({ kind }) => kind === 'field.correct')
  expect(said.map(({ who }) => who)).toEqual([name, name])
})

test('whoever of a vendor works alone checks in; the desk hears of it when they do not, and when they are found', async () => {
  const { token, id, name, visitId } = await sent((orderId) => cast.coordinator.must(setLoneWork, { orderId, everyMinutes: 30 }))
  expect((await vendor.must(pass.readPass, { token })).alone).toEqual({ everyMinutes: 30, dueAt: null })
  expect(await reasons(vendor.call(pass.checkInByPass, { token }))).toEqual(['clock_stands'])
  expect((await vendor.must(pass.switchVendorStint, { token, kind: 'work' })).alone!.dueAt).toBeTruthy()
  expect((await cast.coordinator.must(readLoneWork, { orderId: id })).watched).toMatchObject([{ name, phone: '+353 1 555 01 40', overdue: false }])
  await house.rows("UPDATE lone_watch SET due_at = '2026-11-23 10:20' WHERE visit_id = ?", [visitId])
  await cast.coordinator.hears((sentence) => sentence.startsWith(`${name} works alone on`) && sentence.endsWith('call +353 1 555 01 40'))
  await vendor.must(pass.checkInByPass, { token })
  await cast.coordinator.hears((sentence) => sentence.startsWith(`${name} is all right`))
  expect((await vendor.must(pass.stopVendorClock, { token })).alone!.dueAt).toBeNull()
  const job = await sent()
  expect((await vendor.must(pass.readPass, { token: job.token })).alone).toBeNull()
  expect(await reasons(vendor.call(pass.checkInByPass, { token: job.token }))).toEqual(['not_alone'])
})

test('the desk calls whoever the vendor says is there, and the firm where they say no number or nothing at all', async () => {
  const { token, id, name, visitId } = await sent((orderId) => cast.coordinator.must(setLoneWork, { orderId, everyMinutes: 30 }))
  expect((await vendor.must(pass.readPass, { token })).there).toBeNull()
  expect((await vendor.call(pass.sayWhoIsThere, { token, name: ' ' })).problem.reasons![0]).toMatchObject({ field: 'name' })
  expect((await vendor.call(pass.sayWhoIsThere, { token, name: 'D', phone: '1'.repeat(41) })).problem.reasons![0]).toMatchObject({ field: 'phone' })
  expect((await vendor.must(pass.sayWhoIsThere, { token, name: 'Declan Furlong' })).there).toEqual({ name: 'Declan Furlong', phone: null })
  await vendor.must(pass.switchVendorStint, { token, kind: 'work' })
  const watched = async () => (await cast.coordinator.must(readLoneWork, { orderId: id })).watched
  expect(await watched()).toMatchObject([{ name: `Declan Furlong of ${name}`, phone: '+353 1 555 01 40' }])
  const said = { name: 'Orla Furlong', phone: '+353 87 555 0199' }
  for (let twice = 0; twice < 2; twice++) await vendor.must(pass.sayWhoIsThere, { token, ...said })
  expect(await watched()).toMatchObject([{ name: `Orla Furlong of ${name}`, phone: said.phone }])
  // Among all that are in the field as well.
  expect((await cast.coordinator.must(readCrewNow, {})).rows.find(({ job }) => job?.orderId === id)!.name).toBe(`Orla Furlong of ${name}`)
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.filter(({ kind }) => kind === 'lone.there').map(({ who, details }) => ({ who, details }))).toEqual([
    { who: name, details: said },
    { who: name, details: { name: 'Declan Furlong', phone: null } },
  ])
  await house.rows("UPDATE lone_watch SET due_at = '2026-11-23 10:20' WHERE visit_id = ?", [visitId])
  await cast.coordinator.hears((sentence) => sentence.startsWith(`Orla Furlong of ${name} works alone on`) && sentence.endsWith(`call ${said.phone}`))
  // By the link of another job nothing of it is read, and once the work is over nothing is added.
  const other = await sent()
  expect((await vendor.must(pass.readPass, { token: other.token })).there).toBeNull()
  await house.rows("UPDATE work_order SET state = 'closed' WHERE id = ?", [id])
  expect(await reasons(vendor.call(pass.sayWhoIsThere, { token, name: 'Nobody' }))).toEqual(['order_over'])
  expect((await house.rows('SELECT there_name AS name FROM visit WHERE id = ?', [visitId]))[0]).toEqual({ name: said.name })
})
