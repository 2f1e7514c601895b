import { listBestFits, readBoard, readBoardPerson, rearrange } from '#contract/board'
import type { Rearrangement } from '#contract/board'
import { switchStint } from '#contract/field'
import { savePlan } from '#contract/methods'
import { dropSkill, readCrew, saveSkill } from '#contract/people'
import { holdOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { agreeWindow } from '#contract/windows'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** What is moved on the Board: one act, all of it or nothing, with a reason where something speaks against it, and back again. */
let house: House
let server: Running
let cast: Cast
let other: Client
beforeAll(async () => {
  house = await House.open('rearrange')
  server = await house.start()
  cast = await castAt(server.url)
  other = await new Client(server.url).signIn('tobias.achterberg')
  // Days on which nobody has anything to do yet.
  await house.rows("UPDATE visit SET state = 'recalled' WHERE state = 'planned'")
})
afterAll(() => house?.close())

/** Later days, one for each test, so that none is in the way of another. */
let day = 0
const DAYS = [
  '2026-12-01',
  '2026-12-02',
  '2026-12-03',
  '2026-12-04',
  '2026-12-07',
  '2026-12-08',
  '2026-12-09',
  '2026-12-10',
  '2026-12-11',
  '2026-12-14',
  '2026-12-15',
  '2026-12-16',
]
beforeEach(() => (day += 1))
const at = (clock: string) => `${DAYS[day - 1]!}T${clock}:00.000Z`
const span = (from: string, until: string) => ({ start: at(from), end: at(until) })
const send = (what: Omit<Rearrangement, 'siteId'>, who = cast.coordinator) => who.call(rearrange, { siteId: 1, ...what })
const done = (what: Omit<Rearrangement, 'siteId'>) => cast.coordinator.must(rearrange, { siteId: 1, ...what })
const idOf = async (name: string) =>
  (
    await house.rows<{ id: number }>(
      'SELECT t.id FROM technician t JOIN account a ON a.id = t.account_id JOIN person p ON p.id = a.person_id WHERE p.name = ?',
      [name],
    )
  )[0]!.id
const boardOf = async () => cast.coordinator.must(readBoard, { siteId: 1, first: DAYS[day - 1]! })
const visitsOf = async (name: string) => (await boardOf()).people.find((one) => one.name === name)!.visits
const readySince = async () => {
  const { id } = await orderAt(cast, 'ready')
  return { id, version: await version(cast, id) }
}
/** An order sent to somebody at a time. */
async function planned(name: string, from: string, until: string) {
  const order = await readySince()
  const { undo } = await done({ adds: [{ orderId: order.id, version: order.version, technicianId: await idOf(name), ...span(from, until) }] })
  return { orderId: order.id, visitId: undo.drops[0]!.visitId, undo }
}
const BRAM = 'Bram Oyelaran'
const electricians = async () => (await boardOf()).people.filter((one) => one.trades.includes('Electrical'))
const state = async (id: number) => (await cast.coordinator.must(readOrder, { id })).state

test('work from the list is sent out where it is put, whoever goes is told, and one act takes it back', async () => {
  const { orderId, visitId, undo } = await planned(BRAM, '09:00', '10:00')
  expect(await state(orderId)).toBe('dispatched')
  expect(await visitsOf(BRAM)).toEqual([expect.objectContaining({ id: visitId, orderId, from: at('09:00'), until: at('10:00'), kind: 'first' })])
  const { number } = await cast.coordinator.must(readOrder, { id: orderId })
  await cast.technician.hears((sentence) => sentence.startsWith(`New job ${number}`))
  await done(undo)
  expect(await state(orderId)).toBe('ready')
  expect(await visitsOf(BRAM)).toEqual([])
  // Taken back already, it cannot be once more.
  const again = await send(undo)
  expect([again.status, again.problem.detail]).toEqual([409, `${number} was taken back meanwhile. Nothing of yours was done; look at it again.`])
})

test('another time, longer, somebody else: told to both, on the timeline, and undone as it was', async () => {
  const { orderId, visitId } = await planned(BRAM, '09:00', '10:00')
  const [, second] = await electricians()
  const { undo } = await done({ changes: [{ visitId, version: 1, technicianId: second!.id, ...span('12:00', '14:00') }] })
  expect(await visitsOf(BRAM)).toEqual([])
  expect(await visitsOf(second!.name)).toEqual([expect.objectContaining({ id: visitId, version: 2, from: at('12:00'), until: at('14:00') })])
  const { number } = await cast.coordinator.must(readOrder, { id: orderId })
  await cast.technician.hears((sentence) => sentence.startsWith(`${number} is with somebody else now`))
  const timeline = await cast.coordinator.must(readOrderTimeline, { id: orderId })
  expect(timeline.entries.find(({ kind }) => kind === 'order.moveVisit')).toMatchObject({ details: { start: at('12:00'), fromStart: at('09:00') } })
  const back = await done(undo)
  expect(await visitsOf(BRAM)).toEqual([expect.objectContaining({ id: visitId, version: 3, from: at('09:00'), until: at('10:00') })])
  // What was undone can be done again by the same means.
  await done(back.undo)
  expect(await visitsOf(second!.name)).toHaveLength(1)
})

test('what speaks against it wants a reason, which is kept; the past is refused whatever the reason', async () => {
  const first = await planned(BRAM, '09:00', '10:00')
  const order = await readySince()
  const add = { orderId: order.id, version: order.version, technicianId: await idOf(BRAM), ...span('09:30', '10:30') }
  const refused = await send({ adds: [add] })
  expect([refused.status, refused.problem.reasons!.map(({ code, field }) => [code, field])]).toEqual([422, [['overlap', 'despite']]])
  expect(await state(order.id)).toBe('ready')
  await done({ adds: [add], despite: 'Both are in the same cabinet' })
  expect(JSON.stringify(await cast.coordinator.must(readOrderTimeline, { id: order.id }))).toContain('Both are in the same cabinet')
  const plumber = (await boardOf()).people.find((one) => !one.trades.includes('Electrical'))!
  const codes = async (more: object) => {
    const reply = await send({ changes: [{ visitId: first.visitId, version: 1, ...span('11:00', '12:00'), ...more }] })
    return reply.problem?.reasons?.map(({ code }) => code)
  }
  expect(await codes({ technicianId: plumber.id })).toContain('trade')
  expect(await codes({ start: at('03:00'), end: at('04:00') })).toEqual(['shift'])
  const past = await send({
    changes: [{ visitId: first.visitId, version: 1, start: '2026-11-20T09:00:00Z', end: '2026-11-20T10:00:00Z' }],
    despite: 'Because',
  })
  expect([past.status, past.problem.reasons!.map(({ code }) => code)]).toEqual([422, ['past']])
  expect((await visitsOf(BRAM)).map(({ version: held }) => held)).toEqual([1, 1])
  // An agreed window is kept, or it is said why not.
  await cast.coordinator.must(agreeWindow, { id: first.orderId, version: await version(cast, first.orderId), from: at('14:00'), until: at('16:00') })
  expect(await codes({})).toEqual(['window'])
  await done({ changes: [{ visitId: first.visitId, version: 1, ...span('14:00', '15:00') }] })
})

test('two visits change places in one act; where one of them cannot, neither does', async () => {
  const [, second] = await electricians()
  const a = await planned(BRAM, '09:00', '10:00')
  const b = await planned(second!.name, '09:00', '10:00')
  const swap = (versionOfB: number) => ({
    changes: [
      { visitId: a.visitId, version: 1, technicianId: second!.id, ...span('09:00', '10:00') },
      { visitId: b.visitId, version: versionOfB, technicianId: 1, ...span('09:00', '10:00') },
    ],
  })
  expect((await send(swap(7))).status).toBe(409)
  expect((await visitsOf(BRAM)).map(({ id }) => id)).toEqual([a.visitId])
  await done(swap(1))
  expect([(await visitsOf(BRAM)).map(({ id }) => id), (await visitsOf(second!.name)).map(({ id }) => id)]).toEqual([[b.visitId], [a.visitId]])
})

test('a visit is split over two times, and a second person goes along; the order stays with whoever is left', async () => {
  const { orderId, visitId } = await planned(BRAM, '09:00', '11:00')
  const orderVersion = await version(cast, orderId)
  const [, second] = await electricians()
  const { undo } = await done({
    changes: [{ visitId, version: 1, ...span('09:00', '10:00') }],
    adds: [
      { orderId, version: orderVersion, technicianId: 1, ...span('14:00', '15:00') },
      { orderId, version: orderVersion, technicianId: second!.id, ...span('09:00', '10:00') },
    ],
  })
  expect((await visitsOf(BRAM)).map(({ from, kind }) => [from, kind])).toEqual([
    [at('09:00'), 'first'],
    [at('14:00'), 'return'],
  ])
  // Who goes along makes the same visit; what comes later is a return.
  expect((await visitsOf(second!.name)).map(({ kind }) => kind)).toEqual(['first'])
  await done(undo)
  expect(await visitsOf(BRAM)).toEqual([expect.objectContaining({ id: visitId, from: at('09:00'), until: at('11:00') })])
  expect([await state(orderId), await visitsOf(second!.name)]).toEqual(['dispatched', []])
})

test('two who move the same visit at once: one does, the other reads where it is, and nothing is lost', async () => {
  const { visitId } = await planned(BRAM, '09:00', '10:00')
  const to = (from: string, until: string) => ({ changes: [{ visitId, version: 1, ...span(from, until) }] })
  const replies = await Promise.all([send(to('10:00', '11:00')), send(to('12:00', '13:00'), other)])
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
  const [held] = await visitsOf(BRAM)
  const refused = replies.find(({ status }) => status === 409)!
  expect(refused.problem.detail).toMatch(/was moved meanwhile: Bram Oyelaran, .* Nothing of yours was done/)
  expect(held).toMatchObject({ version: 2, from: replies[0].status === 200 ? at('10:00') : at('12:00') })
})

test('two who plan the same person at once: the second is asked for a reason', async () => {
  const [a, b] = [await readySince(), await readySince()]
  const add = (one: typeof a) => ({ adds: [{ orderId: one.id, version: one.version, technicianId: 1, ...span('09:00', '10:00') }] })
  const replies = await Promise.all([send(add(a)), send(add(b), other)])
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 422])
  expect(await visitsOf(BRAM)).toHaveLength(1)
})

test('what runs, what is on hold, a vendor, somebody of another site and what is somebody else’s are refused in words', async () => {
  const { orderId, visitId } = await planned(BRAM, '09:00', '10:00')
  const move = { visitId, version: 1, ...span('11:00', '12:00') }
  const says = async (what: Omit<Rearrangement, 'siteId'>) => {
    const { status, problem } = await send(what)
    return [status, problem.reasons?.[0]?.code ?? problem.title]
  }
  const [elsewhere] = await house.rows<{ id: number }>('SELECT t.id FROM technician t JOIN team e ON e.id = t.team_id WHERE e.site_id <> 1 LIMIT 1')
  expect(await says({ changes: [{ ...move, technicianId: elsewhere?.id ?? 99_999 }] })).toEqual([422, 'not_here'])
  expect(await says({})).toEqual([422, 'nothing'])
  expect(await says({ changes: [move], drops: [{ visitId, version: 1 }] })).toEqual([422, 'twice'])
  expect((await send({ changes: [{ ...move, visitId: 999_999 }] })).status).toBe(404)
  expect((await send({ changes: [{ ...move, end: move.start }] })).status).toBe(400)
  for (const stranger of [cast.technician, cast.approver]) expect((await send({ changes: [move] }, stranger)).status).toBe(403)
  expect((await send({ changes: [move] }, cast.anybody)).status).toBe(401)
  expect((await cast.coordinator.call(rearrange, { siteId: 2, changes: [move] })).status).toBe(404)
  await cast.coordinator.must(holdOrder, { id: orderId, version: await version(cast, orderId), holdReason: 'access', reason: 'Locked' })
  expect(await says({ changes: [move] })).toEqual([422, 'on_hold'])
  const running = await orderAt(cast, 'dispatched')
  await cast.technician.must(switchStint, { visitId: running.visitId, kind: 'work' })
  expect(await says({ changes: [{ ...move, visitId: running.visitId, version: 2 }] })).toEqual([422, 'begun'])
})

test('the week of somebody in hours, what they know, and who fits an order best with the reasons', async () => {
  const [asset] = await house.rows<{ id: number }>('SELECT id FROM asset WHERE site_id = 1 AND retired_at IS NULL ORDER BY id LIMIT 1')
  const before = await cast.coordinator.must(readBoardPerson, { siteId: 1, technicianId: 1, day: DAYS[day - 1]! })
  const { orderId } = await planned(BRAM, '09:00', '10:30')
  await house.rows('UPDATE work_order SET asset_id = ?, window_from = ?, window_until = ? WHERE id = ?', [
    asset!.id,
    new Date(at('09:00')),
    new Date(at('12:00')),
    orderId,
  ])
  const after = await cast.coordinator.must(readBoardPerson, { siteId: 1, technicianId: 1, day: DAYS[day - 1]! })
  expect([after.week.plannedMinutes - before.week.plannedMinutes, after.week.promisedMinutes - before.week.promisedMinutes]).toEqual([90, 90])
  expect(before.week.freeMinutes - after.week.freeMinutes).toBe(90)
  expect(after.skills.length).toBeGreaterThan(0)
  // Whoever worked on the asset within a year goes before others who are free as early.
  const [, second] = await electricians()
  await house.rows("UPDATE visit SET technician_id = ?, state = 'ended', ended_at = '2026-11-20 10:00:00' WHERE order_id = ?", [second!.id, orderId])
  const { id } = await readySince()
  await house.rows('UPDATE work_order SET asset_id = ?, completion_due_at = ? WHERE id = ?', [asset!.id, new Date('2026-12-31T16:00:00Z'), id])
  const { rows } = await cast.coordinator.must(listBestFits, { siteId: 1, orderId: id, first: DAYS[day - 1]! })
  expect(rows[0]).toMatchObject({ technicianId: second!.id, start: at('06:00') })
  expect(rows[0]!.because.join(' ')).toMatch(/^Worked on its asset/)
  const crew = (await electricians()).map(({ id: technicianId }) => technicianId)
  for (const { technicianId } of rows) expect(crew).toContain(technicianId)
  const known = await cast.coordinator.must(readBoardPerson, { siteId: 1, technicianId: second!.id })
  expect(known.knows[0]).toMatchObject({ assetId: asset!.id, last: '2026-11-20T10:00:00.000Z' })
  expect((await cast.technician.call(readBoardPerson, { siteId: 1, technicianId: 1 })).status).toBe(403)
  expect((await cast.coordinator.call(readBoardPerson, { siteId: 2, technicianId: 1 })).status).toBe(404)
  expect((await cast.coordinator.call(listBestFits, { siteId: 2, orderId: id })).status).toBe(404)
})

test('a skill the plan asks for wants a reason of who has not got it, or whose certificate has ended by then; who fits best have it', async () => {
  const order = await readySince()
  const { tradeId } = await cast.coordinator.must(readOrder, { id: order.id })
  await cast.coordinator.must(savePlan, { orderId: order.id, version: 0, labour: [{ tradeId: tradeId!, people: 1, minutes: 60, skills: ['Gantry crane'] }] })
  const [one, two] = await electricians()
  const learns = (person: { personId: number }, validUntil: string) =>
    cast.coordinator.must(saveSkill, { id: person.personId, name: 'gantry crane', certificate: '', validUntil })
  const goes = async (despite?: string) =>
    send({
      adds: [{ orderId: order.id, version: await version(cast, order.id), technicianId: one!.id, ...span('09:00', '10:00') }],
      ...(despite ? { despite } : {}),
    })
  expect((await goes()).problem.reasons).toEqual([
    expect.objectContaining({ code: 'skill', field: 'despite', sentence: `Gantry crane is no skill that is noted of ${one!.name}.` }),
  ])
  await learns(one!, '2026-11-30')
  expect((await goes()).problem.reasons![0]!.sentence).toBe(`What ${one!.name} has for Gantry crane ended on Mon 30 Nov.`)
  await learns(two!, DAYS[day - 1]!)
  const { rows } = await cast.coordinator.must(listBestFits, { siteId: 1, orderId: order.id, first: DAYS[day - 1]! })
  expect(rows.map(({ technicianId }) => technicianId)).toEqual([two!.id])
  const waits = (await boardOf()).waiting.find(({ id }) => id === order.id)!
  expect(waits.skills).toEqual(['Gantry crane'])
  expect((await goes('Somebody with the paper stands beside')).status).toBe(200)
  for (const { personId: id } of [one!, two!]) {
    const { skills } = await cast.coordinator.must(readCrew, { id })
    await cast.coordinator.must(dropSkill, { id, itemId: skills.find(({ name }) => name.toLowerCase() === 'gantry crane')!.id })
  }
})
