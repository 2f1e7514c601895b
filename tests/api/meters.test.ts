import { addDowntime, dropDowntime, endDowntime, readDowntimes, sayDowntime } from '#contract/downtimes'
import { readJob } from '#contract/field'
import { addMeter, addReading, readMeters, retireMeter, strikeReading, takeReading } from '#contract/meters'
import { readOrderTimeline } from '#contract/orders'
import { readPortraitTimeline, readPortraitUpkeep } from '#contract/portraits'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** What meters show and when an asset could not be used: at the desk, on the phone, and recorded without signal. */
let house: House
let server: Running
let cast: Cast
let administrator: Client
let assetId: number
let job: { id: number; visitId: number }
beforeAll(async () => {
  house = await House.open('meters')
  server = await house.start()
  cast = await castAt(server.url)
  administrator = await new Client(server.url).signIn('wendeline.stroud')
  job = await orderAt(cast, 'dispatched')
  const [{ id }] = (await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'GEN-1'")) as [{ id: number }]
  assetId = id
  await house.rows('UPDATE work_order SET asset_id = ? WHERE id = ?', [assetId, job.id])
  await house.rows('DELETE FROM reading')
  await house.rows('DELETE FROM meter')
})
afterAll(() => house?.close())

const codes = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)
const fields = async (reply: Promise<{ problem: { reasons?: { field?: string }[] } }>) => (await reply).problem.reasons?.map(({ field }) => field)
const meters = async () => (await cast.coordinator.must(readMeters, { assetId })).rows

test('an administrator gives it meters; nobody else does, and each name is there once', async () => {
  await administrator.must(addMeter, { assetId, name: 'Running hours', unit: 'h' })
  const { rows } = await administrator.must(addMeter, { assetId, name: 'Fuel', unit: 'l', rollsAt: '10000' })
  expect(rows.map(({ name, unit, rollsAt, usualPerDay }) => [name, unit, rollsAt, usualPerDay])).toEqual([
    ['Running hours', 'h', null, null],
    ['Fuel', 'l', '10000', null],
  ])
  expect(await fields(administrator.call(addMeter, { assetId, name: 'Fuel', unit: 'l' }))).toEqual(['name'])
  expect(await fields(administrator.call(addMeter, { assetId, name: ' ', unit: '' }))).toEqual(['name', 'unit'])
  expect((await cast.technician.call(addMeter, { assetId, name: 'X', unit: 'h' })).status).toBe(403)
})

test('readings on the phone: offered with the job, kept with their moment, asked about when they are not like the others', async () => {
  const [hours, fuel] = await meters()
  const { visitId } = job
  const read = (meterId: number, value: string, more: object = {}) => cast.technician.call(addReading, { visitId, meterId, value, ...more })
  expect((await cast.technician.must(readJob, { visitId })).meters.map(({ name, tag, readHere }) => [name, tag, readHere])).toEqual([
    ['Running hours', 'GEN-1', null],
    ['Fuel', 'GEN-1', null],
  ])
  const { meters: now } = await cast.technician.must(addReading, { visitId, meterId: hours!.id, value: '100.5', happenedAt: '2026-11-20T08:00:00Z' })
  expect(now[0]).toMatchObject({ readHere: '100.5', readings: [{ value: '100.5', at: '2026-11-20T08:00:00.000Z', anew: false }] })
  expect(await codes(read(hours!.id, '300'))).toEqual(['reading_above'])
  expect((await read(hours!.id, '300', { answer: 'sure' })).status).toBe(200)
  expect(await codes(read(hours!.id, '299'))).toEqual(['reading_below'])
  expect(await codes(read(hours!.id, '299', { answer: 'rolled' }))).toEqual(['reading_below'])
  expect((await read(hours!.id, '4', { answer: 'exchanged' })).status).toBe(200)
  // Recorded before that, heard of now: more than what was read since.
  expect(await codes(read(hours!.id, '900', { happenedAt: '2026-11-21T08:00:00Z', answer: 'sure' }))).toEqual(['reading_later'])
  expect((await read(fuel!.id, '9900')).status).toBe(200)
  expect(await codes(read(fuel!.id, '10000'))).toEqual(['reading_too_high'])
  expect((await read(fuel!.id, '40', { answer: 'rolled' })).status).toBe(200)
  expect(await fields(read(fuel!.id, '4,5x'))).toEqual(['value'])
  expect(await fields(read(fuel!.id, '-4'))).toEqual(['value'])
  expect(await codes(read(999_999, '4'))).toEqual(['meter_unknown'])
  const rows = await meters()
  expect(rows.map(({ ran, readings }) => [ran, readings.length])).toEqual([
    ['203.5', 3],
    ['140', 2],
  ])
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id: job.id })
  expect(entries.filter(({ kind }) => kind === 'meter.read')).toHaveLength(5)
  const portrait = await cast.coordinator.must(readPortraitTimeline, { register: 'assets', id: assetId })
  expect(portrait.entries.some(({ kind }) => kind === 'meter.read')).toBe(true)
  const upkeep = await cast.coordinator.must(readPortraitUpkeep, { register: 'assets', id: assetId })
  expect(upkeep.meters.map(({ name, before }) => [name, before])).toEqual([
    ['Running hours', null],
    ['Fuel', '9900.000'],
  ])
})

test('what was wrong is struck out with a reason, stays to be seen, and counts no more', async () => {
  const [hours] = await meters()
  const wrong = hours!.readings[0]!
  expect((await cast.coordinator.call(strikeReading, { id: wrong.id, reason: ' ' })).status).toBe(400)
  const { rows } = await cast.coordinator.must(strikeReading, { id: wrong.id, reason: 'Read off the wrong engine' })
  expect([rows[0]!.ran, rows[0]!.readings[0]!.struck]).toMatchObject(['199.5', { by: 'Maren Quill', reason: 'Read off the wrong engine' }])
  expect(await codes(cast.coordinator.call(strikeReading, { id: wrong.id, reason: 'Again' }))).toEqual(['struck'])
  expect((await cast.technician.must(readJob, { visitId: job.visitId })).meters[0]!.readings.map(({ value }) => value)).toEqual(['300', '100.5'])
  await cast.coordinator.must(takeReading, { id: hours!.id, value: '301' })
  expect(await fields(cast.coordinator.call(takeReading, { id: hours!.id, value: '302', at: '2027-01-01T00:00:00Z' }))).toEqual(['at'])
  await administrator.must(retireMeter, { id: hours!.id })
  expect((await meters()).map(({ name }) => name)).toEqual(['Fuel'])
  expect(await codes(cast.coordinator.call(takeReading, { id: hours!.id, value: '303' }))).toEqual(['meter_retired'])
})

test('two who read at once are taken one after the other', async () => {
  const [fuel] = await meters()
  const replies = await Promise.all(['60', '50'].map((value) => cast.coordinator.call(takeReading, { id: fuel!.id, value })))
  const { readings } = (await meters())[0]!
  const kept = readings.filter(({ struck }) => !struck).map(({ value }) => Number(value))
  expect(replies.some(({ status }) => status === 200)).toBe(true)
  expect(replies.every(({ status }) => status === 200 || status === 422)).toBe(true)
  // Whoever was second is asked about it, unless theirs goes on from the first: the later one is never the lesser.
  const mine = [60, 50].filter((_, n) => replies[n]!.status === 200)
  expect(kept.slice(0, mine.length)).toEqual(mine)
})

test('downtime is written down on the job, ended under the same mark, and lies over nothing else', async () => {
  const { visitId } = job
  const mark = 'downtime-of-the-job'
  const say = (more: object) => cast.technician.call(sayDowntime, { visitId, mark, fromAt: '2026-11-23T08:00:00Z', ...more })
  expect((await say({ reason: 'Will not start' })).status).toBe(200)
  expect((await cast.technician.must(readJob, { visitId })).downtimes).toMatchObject([{ mark, untilAt: null, reason: 'Will not start', who: 'Bram Oyelaran' }])
  expect(await codes(cast.coordinator.call(addDowntime, { assetId, fromAt: '2026-11-23T09:00:00Z' }))).toEqual(['downtime_over'])
  expect(await fields(say({ fromAt: '2026-11-24T08:00:00Z' }))).toEqual(['fromAt'])
  expect(await fields(say({ untilAt: '2026-11-23T07:00:00Z' }))).toEqual(['untilAt'])
  expect((await say({ untilAt: '2026-11-23T09:30:00Z' })).status).toBe(200)
  const stands = await cast.coordinator.must(readDowntimes, { assetId })
  expect(stands.rows.map(({ reason, untilAt }) => [reason, untilAt])).toEqual([['', '2026-11-23T09:30:00.000Z']])
  expect(stands.minutesOfYear).toBe(90)
  const { rows } = await cast.coordinator.must(addDowntime, { assetId, fromAt: '2026-11-23T10:00:00Z', reason: 'Again' })
  const ended = await cast.coordinator.must(endDowntime, { id: rows[0]!.id })
  expect(ended.rows[0]!.untilAt).not.toBeNull()
  expect(await codes(cast.coordinator.call(endDowntime, { id: rows[0]!.id }))).toEqual(['ended'])
  expect((await cast.coordinator.must(dropDowntime, { id: rows[0]!.id })).rows).toHaveLength(1)
  expect((await cast.coordinator.call(dropDowntime, { id: rows[0]!.id })).status).toBe(404)
})

test('nobody else reads or writes any of it', async () => {
  const stranger = await new Client(server.url).signIn('sunniva.teague')
  const [fuel] = await meters()
  expect((await stranger.call(addReading, { visitId: job.visitId, meterId: fuel!.id, value: '70' })).status).toBe(404)
  expect((await stranger.call(sayDowntime, { visitId: job.visitId, mark: 'a-mark-of-a-stranger', fromAt: '2026-11-23T08:00:00Z' })).status).toBe(404)
  expect((await stranger.call(readMeters, { assetId })).status).toBe(403)
  expect((await stranger.call(takeReading, { id: fuel!.id, value: '70' })).status).toBe(403)
  expect((await cast.coordinator.call(readMeters, { assetId: 999_999 })).status).toBe(404)
  expect((await cast.coordinator.call(addDowntime, { assetId: 999_999, fromAt: '2026-11-23T08:00:00Z' })).status).toBe(404)
})
