import { moveOrders, moveRequests, readNeededReason } from '#contract/lists'
import { editOrder, readOrder } from '#contract/orders'
import { readRequest, takeUpRequest } from '#contract/requests'
import { readRuleBook, saveRules } from '#contract/setup'
import type { ReasonRule } from '#core/orders'
import { castAt, Client, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Many rows moved at once: each under its own rules, each with a result of its own. */
let house: House
let server: Running
let cast: Cast
let admin: Client

beforeAll(async () => {
  house = await House.open('bulk')
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const item = async (id: number) => ({ id, version: await version(cast, id) })
const stateOf = async (id: number) => (await cast.coordinator.must(readOrder, { id })).state
async function setReasons(rules: ReasonRule[]): Promise<void> {
  const { versions } = await admin.must(readRuleBook, { siteId: 1 })
  await admin.must(saveRules, { siteId: 1, version: versions.reasons, section: 'reasons', content: rules })
}

test('what can go goes, what cannot stays whole and says why, in the order it was sent', async () => {
  const draft = await orderAt(cast, 'draft')
  const ready = await orderAt(cast, 'ready')
  const done = await orderAt(cast, 'done')
  const stale = await orderAt(cast, 'ready')
  const items = [await item(done.id), await item(ready.id), { ...(await item(stale.id)), version: 1 }, { id: 999_999, version: 1 }, await item(draft.id)]
  const { rows } = await cast.coordinator.must(moveOrders, { move: 'cancel', items, reason: 'Not needed any more' })
  expect(rows.map((row) => [row.id, row.moved])).toEqual([
    [done.id, false],
    [ready.id, true],
    [stale.id, false],
    [999_999, false],
    [draft.id, true],
  ])
  expect(rows.map((row) => row.reasons[0]?.code)).toEqual(['wrong_state', undefined, 'changed', 'not_found', undefined])
  expect(rows[1]).toMatchObject({ state: 'cancelled', version: items[1]!.version + 1 })
  expect([await stateOf(done.id), await stateOf(ready.id), await stateOf(stale.id), await stateOf(draft.id)]).toEqual([
    'done',
    'cancelled',
    'ready',
    'cancelled',
  ])
  const events = await house.rows<{ order_id: number; reason: string }>("SELECT order_id, reason FROM event WHERE kind = 'order.cancel' AND order_id IN (?)", [
    items.map((one) => one.id),
  ])
  expect(events.map((event) => event.order_id).sort()).toEqual([ready.id, draft.id].sort())
  // Taken back, with the versions the answer gave.
  const back = await cast.coordinator.must(moveOrders, {
    move: 'reopen',
    items: rows.filter((row) => row.moved).map(({ id, version: now }) => ({ id, version: now })),
    reason: 'Taken back at once',
  })
  expect(back.rows.every((row) => row.moved)).toBe(true)
})

test('repeating a bulk move after a lost answer gives the same answer and moves nothing twice', async () => {
  const { id } = await orderAt(cast, 'ready')
  const input = { move: 'hold' as const, holdReason: 'part' as const, items: [await item(id)], reason: 'Waiting for the ballast' }
  const key = 'a'.repeat(32)
  const first = await cast.coordinator.must(moveOrders, input, { key })
  const again = await cast.coordinator.must(moveOrders, input, { key })
  expect(again).toEqual(first)
  expect(await house.rows("SELECT COUNT(*) AS n FROM event WHERE kind = 'order.hold' AND order_id = ?", [id])).toEqual([{ n: 1 }])
})

test('permission and site are those of every other way', async () => {
  const { id } = await orderAt(cast, 'ready')
  const items = [await item(id)]
  expect((await cast.clerk.call(moveOrders, { move: 'cancel', items, reason: 'x' })).status).toBe(403)
  expect((await cast.technician.call(moveOrders, { move: 'cancel', items, reason: 'x' })).status).toBe(403)
  expect((await cast.coordinator.call(moveOrders, { move: 'approve', items })).status).toBe(403)
  expect((await cast.coordinator.call(moveOrders, { move: 'dispatch', items })).status).toBe(400)
  expect((await cast.coordinator.call(moveOrders, { move: 'hold', items, reason: 'x' })).problem.reasons![0]!.field).toBe('holdReason')
  expect((await cast.coordinator.call(moveOrders, { move: 'cancel', items: [] })).status).toBe(400)
  expect((await cast.coordinator.call(moveOrders, { move: 'cancel', items: [...items, ...items] })).status).toBe(400)
  expect(await stateOf(id)).toBe('ready')
})

test('a rule for reasons holds here too, and the form knows before the press', async () => {
  const [a, b] = [await orderAt(cast, 'ready'), await orderAt(cast, 'ready')]
  await cast.coordinator.must(editOrder, { id: b.id, version: await version(cast, b.id), consequence: 'safety', urgency: 'now' })
  await setReasons([
    { move: 'recall', when: {}, answers: [] },
    { move: 'cancel', when: { priorities: ['emergency'] }, answers: ['Too late', 'Made safe'] },
  ])
  const ids = `${a.id},${b.id}`
  expect(await cast.coordinator.must(readNeededReason, { move: 'cancel', ids })).toEqual({ needed: true, answers: ['Too late', 'Made safe'] })
  expect(await cast.coordinator.must(readNeededReason, { move: 'cancel', ids: String(a.id) })).toEqual({ needed: true, answers: [] })
  expect(await cast.coordinator.must(readNeededReason, { move: 'archive', ids })).toEqual({ needed: false, answers: [] })
  const items = [await item(a.id), await item(b.id)]
  const mixed = await cast.coordinator.must(moveOrders, { move: 'cancel', items, reason: 'The tenant moved out' })
  expect(mixed.rows.map((row) => row.moved)).toEqual([true, false])
  expect(mixed.rows[1]!.reasons[0]!.code).toBe('reason_not_listed')
  const listed = await cast.coordinator.must(moveOrders, { move: 'cancel', items: [items[1]!], reason: 'Made safe: the breaker is out' })
  expect(listed.rows[0]!.moved).toBe(true)
  await setReasons([])
})

test('approvers approve many, within their limit only; the clerk posts what is checked', async () => {
  const small = await orderAt(cast, 'to_approve')
  const large = await orderAt(cast, 'draft')
  await cast.coordinator.must(editOrder, {
    id: large.id,
    version: await version(cast, large.id),
    tradeId: 1,
    teamId: 1,
    supervisorId: 3,
    leadId: 1,
    estimateMinor: 900_000,
  })
  expect((await cast.coordinator.must(moveOrders, { move: 'submit', items: [await item(large.id)] })).rows[0]!.moved).toBe(true)
  const { rows } = await cast.approver.must(moveOrders, { move: 'approve', items: [await item(small.id), await item(large.id)] })
  expect(rows.map((row) => [row.moved, row.state])).toEqual([
    [true, 'ready'],
    [false, 'to_approve'],
  ])
  const checked = await orderAt(cast, 'checked')
  const posted = await cast.clerk.must(moveOrders, { move: 'post', items: [await item(checked.id), await item(small.id)] })
  expect(posted.rows.map((row) => [row.moved, row.state])).toEqual([
    [true, 'closed'],
    [false, 'ready'],
  ])
  const away = await cast.coordinator.must(moveOrders, { move: 'archive', items: [await item(checked.id), await item(small.id)] })
  expect(away.rows.map((row) => row.moved)).toEqual([true, false])
  expect((await cast.coordinator.must(moveOrders, { move: 'restore', items: [await item(checked.id)] })).rows[0]!.moved).toBe(true)
})

test('drafts with nothing recorded are discarded together and brought back', async () => {
  const [a, b] = [await orderAt(cast, 'draft'), await orderAt(cast, 'done')]
  const { rows } = await cast.coordinator.must(moveOrders, { move: 'discard', items: [await item(a.id), await item(b.id)] })
  expect(rows.map((row) => row.moved)).toEqual([true, false])
  expect((await cast.coordinator.must(readOrder, { id: a.id })).discarded).toBe(true)
  await cast.coordinator.must(moveOrders, { move: 'restore', items: [{ id: a.id, version: rows[0]!.version }] })
  expect((await cast.coordinator.must(readOrder, { id: a.id })).discarded).toBe(false)
})

test('requests are taken up and declined together; each reporter is told', async () => {
  const [a, b] = [await report(cast), await report(cast)]
  await cast.coordinator.must(takeUpRequest, { id: a.id, version: 1 })
  const taken = await cast.coordinator.must(moveRequests, {
    move: 'takeUp',
    items: [
      { id: a.id, version: 2 },
      { id: b.id, version: 1 },
    ],
  })
  expect(taken.rows.map((row) => row.reasons[0]?.code ?? row.moved)).toEqual(['taken_up', true])
  const none = await cast.coordinator.must(moveRequests, { move: 'decline', items: [{ id: a.id, version: 2 }] })
  expect(none.rows[0]!.reasons[0]!.code).toBe('reason_missing')
  const { rows } = await cast.coordinator.must(moveRequests, {
    move: 'decline',
    reason: 'The tenant looks after it.',
    items: [
      { id: a.id, version: 2 },
      { id: b.id, version: 2 },
    ],
  })
  expect(rows.every((row) => row.moved && row.state === 'declined')).toBe(true)
  expect((await cast.coordinator.must(readRequest, { id: b.id })).declineReason).toBe('The tenant looks after it.')
  expect((await cast.approver.call(moveRequests, { move: 'decline', reason: 'x', items: [{ id: a.id, version: 3 }] })).status).toBe(403)
})
