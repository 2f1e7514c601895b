import { showPresence } from '#contract/insight'
import { editOrder, readOrder, restoreOrder, submitOrder } from '#contract/orders'
import { readAssetSays } from '#contract/places'
import {
  acceptRequest,
  answerQuestion,
  askReporter,
  declineRequest,
  joinRequest,
  makeAnotherOrder,
  trackRequest,
  triageRequest,
  undoOutcome,
} from '#contract/requests'
import { accepted, castAt, Client, complete, House, report, requestInFull, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Outcomes of requests, each taken back until somebody else has acted; who else is here. */
let house: House
let server: Running
let cast: Cast
let tobias: Client

beforeAll(async () => {
  house = await House.open('outcomes', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  tobias = await new Client(server.url).signIn('tobias.achterberg')
})
afterAll(() => house?.close())

const sheet = (id: number) => requestInFull(cast.coordinator, id)
const undo = async (id: number, client = cast.coordinator) => client.call(undoOutcome, { id, version: (await sheet(id)).version })

describe('taken back', () => {
  test('accepted: the draft is discarded, the request is undecided with all it said, and both remember', async () => {
    const { id } = await report(cast)
    const orderId = await accepted(cast, id)
    expect((await sheet(id)).outcome).toMatchObject({ move: 'accept', reasons: [] })
    expect((await undo(id)).body).toMatchObject({ state: 'new' })
    const now = await sheet(id)
    expect(now).toMatchObject({ state: 'new', orders: [], priority: 'routine', categoryId: 1, outcome: null })
    expect(now.timeline.map((entry) => entry.kind).slice(0, 2)).toEqual(['request.undo', 'request.accept'])
    const order = await cast.coordinator.must(readOrder, { id: orderId })
    expect(order).toMatchObject({ discarded: true, requests: [] })
    expect((await undo(id)).problem.reasons![0]!.code).toBe('nothing_to_undo')
    // Accepted again, it becomes another order; the discarded one can still be brought back.
    const again = await accepted(cast, id)
    expect(again).not.toBe(orderId)
    await cast.coordinator.must(restoreOrder, { id: orderId, version: order.version })
  })

  test('declined: the reporter hears that it is open again', async () => {
    const { id, token } = await report(cast, { email: 'undo@reporter.example' })
    await cast.coordinator.must(declineRequest, { id, version: 1, reason: 'Not ours.' })
    expect((await cast.anybody.must(trackRequest, { token })).progress.step).toBe('closed')
    expect((await undo(id)).status).toBe(200)
    const tracked = await cast.anybody.must(trackRequest, { token })
    expect(tracked.progress.step).toBe('received')
    expect(tracked.steps.at(-1)!.sentence).toBe('We took that back and are looking at it again.')
    await house.mail('undo@reporter.example', (mail) => mail.text.includes('It is open again'))
    expect(await sheet(id)).toMatchObject({ state: 'new', declineReason: null })
  })

  test('asked, joined, and accepted into an order that was there', async () => {
    const [a, b, c] = [await report(cast), await report(cast), await report(cast)]
    await cast.coordinator.must(askReporter, { id: a.id, version: 1, reason: 'Which one?' })
    expect((await undo(a.id)).body).toMatchObject({ state: 'new' })
    expect((await sheet(a.id)).question).toBeNull()
    await cast.coordinator.must(joinRequest, { id: b.id, version: 1, toId: a.id })
    expect((await undo(b.id)).body).toMatchObject({ state: 'new' })
    expect((await sheet(b.id)).joinedTo).toBeNull()
    const orderId = await accepted(cast, a.id)
    const triaged = await cast.coordinator.must(triageRequest, { id: c.id, version: 1, categoryId: 1, consequence: 'room', urgency: 'today', payerId: 3 })
    await cast.coordinator.must(acceptRequest, { id: c.id, version: triaged.version, orderId })
    expect((await undo(c.id)).body).toMatchObject({ state: 'new' })
    const order = await cast.coordinator.must(readOrder, { id: orderId })
    expect([order.discarded, order.requests.map((one) => one.id)]).toEqual([false, [a.id]])
  })

  test('accepted while a question was open: the question stands again', async () => {
    const { id } = await report(cast)
    await cast.coordinator.must(askReporter, { id, version: 1, reason: 'Which floor?' })
    await accepted(cast, id)
    expect((await undo(id)).body).toMatchObject({ state: 'asked' })
    expect((await sheet(id)).question).toBe('Which floor?')
  })
})

describe('not any more', () => {
  test('by somebody else, or once somebody else has acted', async () => {
    const { id } = await report(cast)
    const orderId = await accepted(cast, id)
    expect((await undo(id, tobias)).problem.reasons![0]!.code).toBe('not_yours')
    await tobias.must(editOrder, { id: orderId, version: await version(cast, orderId), summary: 'Both lights' })
    const late = await undo(id)
    expect(late.status).toBe(422)
    expect(late.problem.reasons![0]!.sentence).toBe('Tobias Achterberg has acted on it since, so it stays.')
    expect((await sheet(id)).outcome!.reasons[0]!.code).toBe('acted_on')
    expect((await sheet(id)).state).toBe('accepted')
  })

  test('once the order has gone on, or the reporter has answered, or the page is stale', async () => {
    const first = await report(cast)
    const orderId = await accepted(cast, first.id)
    await cast.coordinator.must(editOrder, { id: orderId, version: await version(cast, orderId), ...complete })
    await cast.coordinator.must(submitOrder, { id: orderId, version: await version(cast, orderId) })
    expect((await undo(first.id)).problem.reasons![0]!.code).toBe('order_moved')
    const second = await report(cast)
    await cast.coordinator.must(askReporter, { id: second.id, version: 1, reason: 'Which?' })
    await cast.anybody.must(answerQuestion, { token: second.token, answer: 'The left one' })
    expect((await undo(second.id)).problem.reasons![0]!.code).toBe('nothing_to_undo')
    const third = await report(cast)
    await cast.coordinator.must(declineRequest, { id: third.id, version: 1, reason: 'No.' })
    expect((await cast.coordinator.call(undoOutcome, { id: third.id, version: 1 })).status).toBe(409)
    expect((await cast.approver.call(undoOutcome, { id: third.id, version: 2 })).status).toBe(403)
  })
})

describe('several orders from one request', () => {
  test('each starts with what the request held, under a line of its own, and is told of in both timelines', async () => {
    const { id } = await report(cast)
    const { version: first } = await sheet(id)
    expect((await cast.coordinator.call(makeAnotherOrder, { id, version: first, summary: 'x' })).problem.reasons![0]!.code).toBe('not_accepted')
    const one = await accepted(cast, id)
    const { orderId } = await cast.coordinator.must(makeAnotherOrder, { id, version: (await sheet(id)).version, summary: 'Paint the ceiling afterwards' })
    const order = await cast.coordinator.must(readOrder, { id: orderId })
    expect(order).toMatchObject({
      state: 'draft',
      summary: 'Paint the ceiling afterwards',
      priority: 'routine',
      contactName: 'Aoife Ashdown',
      requests: [{ id }],
    })
    expect((await sheet(id)).orders.map((row) => row.id).sort()).toEqual([one, orderId].sort())
    expect((await sheet(id)).timeline.some((entry) => entry.kind === 'request.another')).toBe(true)
    // Taking the second back leaves the first.
    expect((await undo(id)).body).toMatchObject({ state: 'accepted' })
    expect((await sheet(id)).orders.map((row) => row.id)).toEqual([one])
  })

  test('the reporter hears that it is done only when all of them are', async () => {
    const { id, token } = await report(cast)
    const one = await accepted(cast, id)
    await cast.coordinator.must(makeAnotherOrder, { id, version: (await sheet(id)).version, summary: 'And the ceiling' })
    await house.rows("UPDATE work_order SET state = 'done' WHERE id = ?", [one])
    expect((await cast.anybody.must(trackRequest, { token })).progress.step).toBe('looking')
  })
})

test('what an asset says of the work on it: place, payer, vendor, contact', async () => {
  const [freezer] = await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'F-003'")
  const says = await cast.coordinator.must(readAssetSays, { id: freezer!.id })
  expect(says).toMatchObject({
    label: expect.stringContaining('F-003') as string,
    payer: { label: expect.stringMatching(/^5100 /) as string },
    vendor: { label: 'Northbay Cooling' },
    underWarrantyUntil: '2026-12-17',
  })
  expect(says.place.label).toMatch(/^TID-/)
  expect((await cast.coordinator.call(readAssetSays, { id: 999_999 })).status).toBe(404)
  // The order it becomes names the vendor of the asset.
  const { id } = await report(cast)
  await cast.coordinator.must(triageRequest, { id, version: 1, assetId: freezer!.id })
  expect((await cast.coordinator.must(readOrder, { id: await accepted(cast, id) })).vendorId).toBe(says.vendor!.id)
})

describe('who else is here', () => {
  const screen = (n: number) => `screen-${'0'.repeat(10)}-${n}`
  test('those who have the same Sheet open see each other, until they leave', async () => {
    const { id } = await report(cast)
    const here = { type: 'request' as const, id }
    expect((await cast.coordinator.must(showPresence, { screen: screen(1), ...here })).others).toEqual([])
    expect((await tobias.must(showPresence, { screen: screen(2), ...here })).others.map((one) => one.name)).toEqual(['Maren Quill'])
    // Two windows of one person are one person, and nobody is beside themselves.
    await tobias.must(showPresence, { screen: screen(3), ...here })
    expect((await cast.coordinator.must(showPresence, { screen: screen(1), ...here })).others.map((one) => one.name)).toEqual(['Tobias Achterberg'])
    await tobias.must(showPresence, { screen: screen(2) })
    await tobias.must(showPresence, { screen: screen(3), type: 'order', id: await accepted(cast, id) })
    expect((await cast.coordinator.must(showPresence, { screen: screen(1), ...here })).others).toEqual([])
  })

  test('no row is written for it, and what is not theirs to see is not there', async () => {
    const before = await house.rows('SELECT COUNT(*) AS n FROM idempotency_key')
    expect((await cast.coordinator.call(showPresence, { screen: screen(1), type: 'order', id: 999_999 })).status).toBe(404)
    expect((await cast.technician.call(showPresence, { screen: screen(4), type: 'order', id: 1 })).status).toBe(403)
    expect((await cast.coordinator.call(showPresence, { screen: 'x', type: 'order', id: 1 })).status).toBe(400)
    expect(await house.rows('SELECT COUNT(*) AS n FROM idempotency_key')).toEqual(before)
  })
})
