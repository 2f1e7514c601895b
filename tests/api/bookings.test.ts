import {
  bookEquipment,
  cancelBooking,
  checkBooking,
  giveBack,
  handOut,
  listBookingsOf,
  moveBooking,
  readEquipmentCalendar,
  readOrderBookings,
} from '#contract/bookings'
import { finishJob, switchStint } from '#contract/field'
import { readOrderPlan, readPlanEstimate, savePlan } from '#contract/methods'
import { cancelOrder, checkOrder, postOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { listNotices } from '#contract/people'
import { readPortraitTimeline } from '#contract/portraits'
import { addEquipment, editEquipment } from '#contract/stock'
import { castAt, Client, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Equipment that is lent to jobs: booked without a clash, handed out and given back, missed when it is late. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('bookings', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

let pieces = 0
const piece = async (more: object = {}) =>
  (await cast.coordinator.must(addEquipment, { tag: `T-${++pieces}`, name: `Test piece ${pieces}`, siteId: 1, ...more })).id
const at = (day: number, hour = 8) => new Date(Date.UTC(2026, 11, day, hour)).toISOString()
const order = async () => (await orderAt(cast, 'ready')).id
const tried = (orderId: number, equipmentId: number, from: string, until: string, who: Client = cast.coordinator) =>
  who.call(bookEquipment, { orderId, equipmentId, from, until })
const book = async (orderId: number, equipmentId: number, from = at(1), until = at(2)) =>
  cast.coordinator.must(bookEquipment, { orderId, equipmentId, from, until })
const sentence = (reply: { problem: { reasons?: { sentence: string }[] } }) => reply.problem.reasons![0]!.sentence

test('a clash is told before it is done, and refused when it is tried; next to each other they fit', async () => {
  const id = await piece()
  const [mine, other] = [await order(), await order()]
  const made = await book(mine, id, at(1), at(3))
  const { clashes, sentences } = await cast.coordinator.must(checkBooking, { equipmentId: id, from: at(2), until: at(4) })
  expect([clashes.map((one) => one.id), sentences]).toEqual([[made.id], [`It is booked for ${made.order.number} then.`]])
  const refused = await tried(other, id, at(2), at(4))
  expect([refused.status, refused.problem.reasons![0]!.field]).toEqual([422, 'from'])
  expect((await tried(other, id, at(3), at(4))).status).toBe(200)
  // Its own time is not in its way.
  expect((await cast.coordinator.must(checkBooking, { equipmentId: id, from: at(1), until: at(2), bookingId: made.id })).clashes).toEqual([])
  const moved = await cast.coordinator.must(moveBooking, { id: made.id, version: made.version, from: at(1), until: at(2) })
  expect(moved.until).toBe(at(2))
  expect((await cast.coordinator.call(moveBooking, { id: made.id, version: moved.version, from: at(1), until: at(4) })).status).toBe(422)
  expect((await cast.coordinator.call(moveBooking, { id: made.id, version: made.version, from: at(1), until: at(2) })).status).toBe(409)
  const told = (await cast.coordinator.must(readOrderTimeline, { id: mine })).entries.map(({ kind }) => kind)
  expect(told).toEqual(expect.arrayContaining(['booking.make', 'booking.move']))
  expect((await cast.coordinator.must(readPortraitTimeline, { register: 'equipment', id })).entries.map(({ kind }) => kind)).toContain('booking.make')
})

test('two who book the same at once: one has it', async () => {
  const id = await piece()
  const orders = [await order(), await order(), await order()]
  const replies = await Promise.all(orders.map((one) => tried(one, id, at(5), at(6))))
  expect(replies.map(({ status }) => status).sort()).toEqual([200, 422, 422])
})

test('handed out, it is with somebody until it is given back; nobody else is handed it', async () => {
  const id = await piece()
  const [first, second] = [await book(await order(), id, at(1), at(2)), await book(await order(), id, at(2), at(3))]
  const out = await cast.coordinator.must(handOut, { id: first.id, version: first.version, to: 'Bram Oyelaran' })
  expect(out).toMatchObject({ state: 'out', has: 'Bram Oyelaran' })
  expect(sentence(await cast.coordinator.call(handOut, { id: second.id, version: second.version, to: 'Fintan' }))).toBe(
    'Bram Oyelaran has it still: take it back first.',
  )
  const calendar = await cast.coordinator.must(readEquipmentCalendar, { siteId: 1, from: '2026-12-01', days: 7 })
  expect(calendar.rows.find((row) => row.id === id)).toMatchObject({
    out: { has: 'Bram Oyelaran', late: false },
    bookings: [{ id: first.id }, { id: second.id }],
  })
  expect((await cast.coordinator.call(cancelBooking, { id: out.id, version: out.version })).status).toBe(422)
  const back = await cast.coordinator.must(giveBack, { id: out.id, version: out.version, note: 'One wheel sticks' })
  expect(back).toMatchObject({ state: 'back', has: null, note: 'One wheel sticks' })
  expect((await cast.coordinator.must(handOut, { id: second.id, version: second.version, to: 'Fintan' })).state).toBe('out')
  expect((await cast.coordinator.must(listBookingsOf, { id })).rows.map(({ state }) => state)).toEqual(['out', 'back'])
})

test('handed out sooner than it was booked for, it is not taken from who has booked it before', async () => {
  const id = await piece()
  const late = await book(await order(), id, at(10), at(11))
  await book(await order(), id, at(5), at(6))
  const early = await cast.coordinator.call(handOut, { id: late.id, version: late.version, to: 'Bram' })
  expect([early.status, sentence(early)]).toEqual([422, expect.stringContaining('It is booked for')])
})

test('beyond its inspection it is neither booked nor handed out', async () => {
  const id = await piece({ inspectedUntil: '2026-12-04' })
  const orderId = await order()
  expect((await tried(orderId, id, at(3), at(5))).status).toBe(422)
  const made = await book(orderId, id, at(3), at(4, 23))
  const sheet = await cast.coordinator.must(editEquipment, { id, version: 1, inspectedUntil: '2026-11-01' })
  expect(sheet.inspectedUntil).toBe('2026-11-01')
  expect(sentence(await cast.coordinator.call(handOut, { id: made.id, version: made.version, to: 'Bram' }))).toBe(
    'Its inspection ended on 2026-11-01: nobody may use it.',
  )
})

test('what is late is told of once, to who handed it out and by mail, and stays in the way', async () => {
  const id = await piece()
  const made = await book(await order(), id, at(1), at(2))
  const out = await cast.coordinator.must(handOut, { id: made.id, version: made.version, to: 'Bram Oyelaran' })
  await house.rows("UPDATE booking SET from_at = '2020-01-01', until_at = '2020-01-02' WHERE id = ?", [made.id])
  const mail = await house.mail('maren.quill@skerry.example', ({ subject }) => subject.includes(`Test piece ${pieces}`))
  expect(mail.text).toContain('Bram Oyelaran has it for')
  const { rows } = await cast.coordinator.must(listNotices, {})
  expect(rows.filter((one) => one.sentence.includes(`Test piece ${pieces} should be back`))).toHaveLength(1)
  expect(await house.rows('SELECT id FROM event WHERE kind = ? AND record_id = ?', ['booking.late', id])).toHaveLength(1)
  const { sentences } = await cast.coordinator.must(checkBooking, { equipmentId: id, from: '2026-11-20T00:00:00Z', until: at(3) })
  expect(sentences).toEqual([`${made.order.number} has it then.`])
  await cast.coordinator.must(giveBack, { id: out.id, version: out.version })
})

test('what is planned and not booked is told; an order that is over keeps nothing', async () => {
  const id = await piece()
  const orderId = await order()
  await cast.coordinator.must(savePlan, { orderId, version: 0, tools: [{ text: 'Test piece', equipmentId: id }] })
  expect((await cast.coordinator.must(readOrderBookings, { orderId })).wanted).toMatchObject([{ equipmentId: id }])
  await book(orderId, id, at(10), at(11))
  expect((await cast.coordinator.must(readOrderBookings, { orderId })).wanted).toEqual([])
  await cast.coordinator.must(cancelOrder, { id: orderId, version: await version(cast, orderId), reason: 'Not needed' })
  expect((await tried(await order(), id, at(10), at(11))).status).toBe(200)
  expect((await tried(orderId, id, at(12), at(13))).status).toBe(422)
})

test.each([
  ['backwards', at(2), at(1)],
  ['in the past', '2020-01-01T08:00:00Z', '2020-01-01T09:00:00Z'],
  ['for ever', at(1), '2029-01-01T00:00:00Z'],
])('%s it is not booked', async (_, from, until) => {
  expect((await tried(await order(), await piece(), from, until)).status).toBe(422)
})

test('nobody of the other site sees, books or takes anything here', async () => {
  const id = await piece()
  const orderId = await order()
  const made = await book(orderId, id)
  await house.rows("UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT id FROM account WHERE email LIKE 'tobias.achterberg%')")
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const as = { id: made.id, version: made.version }
  const replies = await Promise.all([
    other.call(listBookingsOf, { id }),
    other.call(checkBooking, { equipmentId: id, from: at(1), until: at(2) }),
    other.call(readOrderBookings, { orderId }),
    tried(orderId, id, at(5), at(6), other),
    other.call(cancelBooking, as),
    other.call(handOut, { ...as, to: 'Me' }),
    other.call(moveBooking, { ...as, from: at(1), until: at(2) }),
  ])
  expect(replies.map(({ status }) => status)).toEqual([404, 404, 404, 404, 404, 404, 404])
  expect((await other.call(readEquipmentCalendar, { siteId: 1 })).status).toBe(422)
  expect((await cast.clerk.call(cancelBooking, as)).status).toBe(403)
})

test('what it costs: estimated for the days it is booked, charged for those it was out, and nothing is charged before it is back', async () => {
  const id = await piece({ perDayMinor: 2_500 })
  const { id: orderId, visitId } = await orderAt(cast, 'dispatched')
  const { version: planned } = await cast.coordinator.must(readOrderPlan, { orderId })
  await cast.coordinator.must(savePlan, { orderId, version: planned, tools: [{ text: 'Test piece', equipmentId: id }] })
  const estimated = async () => (await cast.coordinator.must(readPlanEstimate, { orderId })).lines.find(({ kind }) => kind === 'equipment')
  expect(await estimated()).toMatchObject({ how: '1 day at its rate, not booked yet', costMinor: 2_500 })
  const made = await cast.coordinator.must(bookEquipment, { orderId, equipmentId: id, from: at(1), until: at(4) })
  expect(await estimated()).toMatchObject({ how: '3 days at its rate', costMinor: 7_500 })
  const out = await cast.coordinator.must(handOut, { id: made.id, version: made.version, to: 'Bram' })
  // A rate that changes meanwhile is for the next.
  await house.rows('UPDATE equipment SET per_day_minor = 99999 WHERE id = ?', [id])
  await house.rows("UPDATE booking SET out_at = '2026-11-22 08:00:00' WHERE id = ?", [made.id])
  await cast.technician.must(switchStint, { visitId, kind: 'work' })
  await cast.technician.must(finishJob, { visitId, result: 'done', symptom: 'Worn', cause: 'Wear', fix: 'Replaced' })
  const check = async () => cast.coordinator.call(checkOrder, { id: orderId, version: await version(cast, orderId) })
  const refused = await check()
  expect([refused.status, refused.problem.reasons![0]!.code]).toEqual([422, 'equipment_out'])
  const before = await cast.coordinator.must(readOrder, { id: orderId })
  await cast.coordinator.must(giveBack, { id: out.id, version: out.version })
  const after = await cast.coordinator.must(readOrder, { id: orderId })
  expect(after.costs.filter(({ kind }) => kind === 'equipment')).toEqual([expect.objectContaining({ quantity: '2', unit: 'd', unitCost: 2_500, cost: 5_000 })])
  expect(after.costMinor).toBe(before.costMinor + 5_000)
  expect((await check()).status).toBe(200)
  const { version: now } = await cast.coordinator.must(readOrder, { id: orderId })
  await cast.clerk.must(postOrder, { id: orderId, version: now })
  const lines = await house.rows<{ n: string }>(
    "SELECT sum(l.cost_minor) AS n FROM charge_line l JOIN charge c ON c.id = l.charge_id JOIN posting p ON p.id = c.posting_id WHERE p.order_id = ? AND l.kind = 'equipment'",
    [orderId],
  )
  expect(Number(lines[0]!.n)).toBe(5_000)
})
