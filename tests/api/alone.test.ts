import { checkIn, finishJob, readCrewNow, readJob, readLoneWork, setLoneWork, stopClock, switchStint } from '#contract/field'
import { readOrderTimeline } from '#contract/orders'
import { castAt, Client, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'

/** Whoever works alone says that they are all right; otherwise the desk hears of it, once, with whom to call and where they are. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('alone', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const codes = async (reply: Promise<{ problem: { reasons?: { code: string }[] } }>) => (await reply).problem.reasons?.map(({ code }) => code)
async function alone(everyMinutes = 30) {
  const job = await orderAt(cast, 'dispatched')
  await cast.coordinator.must(setLoneWork, { orderId: job.id, everyMinutes })
  return job
}
const due = async (visitId: number) => (await cast.technician.must(readJob, { visitId })).alone!.dueAt
const leave = (visitId: number) => cast.technician.must(finishJob, { visitId, result: 'return' })

test('watched from when they begin to work until the clock stands, not on the way or on a break', async () => {
  const { visitId } = await alone()
  expect(await due(visitId)).toBeNull()
  await cast.technician.must(switchStint, { visitId, kind: 'travel' })
  expect(await due(visitId)).toBeNull()
  expect(await codes(cast.technician.call(checkIn, { visitId }))).toEqual(['clock_stands'])
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  const first = await due(visitId)
  expect(Date.parse(first!) - Date.parse('2026-11-23T10:30:00Z')).toBeGreaterThanOrEqual(30 * 60_000)
  const { alone: after } = await cast.technician.must(checkIn, { visitId })
  expect(Date.parse(after!.dueAt!)).toBeGreaterThanOrEqual(Date.parse(first!))
  await cast.technician.must(switchStint, { visitId, kind: 'break' })
  expect(await due(visitId)).toBeNull()
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  await cast.technician.must(stopClock, { visitId })
  expect(await due(visitId)).toBeNull()
  await leave(visitId)
})

test('the desk is told once, by notice and mail, and hears when they are found', async () => {
  const { id, visitId } = await alone()
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  const { watched } = await cast.coordinator.must(readLoneWork, { orderId: id })
  expect(watched).toMatchObject([{ name: 'Bram Oyelaran', overdue: false }])
  await house.rows("UPDATE lone_watch SET due_at = '2026-11-23 10:20' WHERE visit_id = ?", [visitId])
  await cast.coordinator.hears((sentence) => sentence.startsWith('Bram Oyelaran works alone on') && sentence.includes('has not checked in by 10:20'))
  const mail = await house.mail('maren.quill@skerry.example', ({ subject }) => subject === 'Not heard of: Bram Oyelaran')
  expect(mail.text).toContain(`/desk/field/order/${id}`)
  expect((await cast.coordinator.must(readLoneWork, { orderId: id })).watched[0]!.overdue).toBe(true)
  const { rows } = await cast.coordinator.must(readCrewNow, {})
  expect(rows[0]!.signs[0]).toMatchObject({ kind: 'alone' })
  // Recorded before the last, heard of now: it says nothing new.
  await cast.technician.must(checkIn, { visitId, happenedAt: '2026-11-23T09:00:00Z' })
  expect((await cast.coordinator.must(readLoneWork, { orderId: id })).watched[0]!.overdue).toBe(true)
  await cast.technician.must(checkIn, { visitId })
  await cast.coordinator.hears((sentence) => sentence.startsWith('Bram Oyelaran is all right'))
  const { entries } = await cast.coordinator.must(readOrderTimeline, { id })
  expect(entries.filter(({ kind }) => kind === 'lone.overdue')).toHaveLength(1)
  await leave(visitId)
})

test('marked while somebody works there already, they are watched from then on; unmarked, no longer', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  expect((await cast.technician.must(readJob, { visitId })).alone).toBeNull()
  expect(await codes(cast.technician.call(checkIn, { visitId }))).toEqual(['not_alone'])
  expect((await cast.coordinator.must(setLoneWork, { orderId: id, everyMinutes: 45 })).watched).toHaveLength(1)
  expect((await cast.coordinator.call(setLoneWork, { orderId: id, everyMinutes: 4 })).problem.reasons![0]).toMatchObject({ field: 'everyMinutes' })
  expect((await cast.coordinator.call(setLoneWork, { orderId: id, everyMinutes: 999 })).status).toBe(400)
  expect(await cast.coordinator.must(setLoneWork, { orderId: id, everyMinutes: null })).toEqual({ everyMinutes: null, watched: [] })
  await leave(visitId)
})

test('nobody else checks in for them, and technicians mark nothing', async () => {
  const { id, visitId } = await alone()
  const stranger = await new Client(server.url).signIn('fintan.rosewarne')
  expect((await stranger.call(checkIn, { visitId })).status).toBe(404)
  expect((await cast.technician.call(setLoneWork, { orderId: id, everyMinutes: null })).status).toBe(403)
  expect((await cast.technician.call(readLoneWork, { orderId: id })).status).toBe(403)
  expect((await cast.coordinator.call(setLoneWork, { orderId: 999_999, everyMinutes: 30 })).status).toBe(404)
})
