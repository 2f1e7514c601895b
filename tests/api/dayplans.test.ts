import { rearrange, readBoard } from '#contract/board'
import { computeDayPlan, listDayPlans, readDayPlan, takeDayPlan } from '#contract/dayplans'
import type { DayPlan, DayPlanAsk } from '#contract/dayplans'
import { savePlan } from '#contract/methods'
import { readOrder } from '#contract/orders'
import { saveSkill } from '#contract/people'
import { readRuleBook, saveRules } from '#contract/setup'
import { addPart, askPurchase, orderPurchase } from '#contract/stock'
import { agreeWindow } from '#contract/windows'
import { Client, castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'

/** A plan is asked for, computed beside what else is answered, and made whole or in part, or not at all. */
let house: House
let server: Running
let cast: Cast
beforeAll(async () => {
  house = await House.open('dayplans')
  server = await house.start()
  cast = await castAt(server.url)
  // Nothing waits and nobody has anything to do but what the test says.
  await house.rows("UPDATE visit SET state = 'recalled' WHERE state = 'planned'")
  await house.rows("UPDATE work_order SET state = 'cancelled' WHERE state = 'ready'")
})
beforeEach(async () => {
  await house.rows("UPDATE visit SET state = 'recalled' WHERE state = 'planned'")
  await house.rows("UPDATE work_order SET state = 'cancelled' WHERE state IN ('ready', 'dispatched')")
})
afterAll(() => house?.close())

/** Asks again until there is an answer. */
async function until<T>(what: string, look: () => Promise<T | null>): Promise<T> {
  const last = Date.now() + 40_000
  for (;;) {
    const found = await look()
    if (found !== null) return found
    if (Date.now() > last) throw new Error(`It never came: ${what}`)
    await new Promise((resolve) => setTimeout(resolve, 150))
  }
}
const FIRST = '2026-11-24'
const at = (clock: string) => `${FIRST}T${clock}:00.000Z`
const ask = (what: Partial<DayPlanAsk> = {}) => ({ siteId: 1, first: FIRST, seconds: 1, ...what })
async function computed(what: Partial<DayPlanAsk> = {}): Promise<DayPlan & { result: NonNullable<DayPlan['result']> }> {
  const { id } = await cast.coordinator.must(computeDayPlan, ask(what))
  return ready(id)
}
async function ready(planId: number) {
  const plan = await until('the plan is there', async () => {
    const one = await cast.coordinator.must(readDayPlan, { siteId: 1, planId })
    return one.state === 'waiting' ? null : one
  })
  expect(plan.state).toBe('ready')
  return plan as DayPlan & { result: NonNullable<DayPlan['result']> }
}
const take = (plan: DayPlan, moves: number[], who = cast.coordinator) => who.call(takeDayPlan, { siteId: 1, planId: plan.id, version: plan.version, moves })
const all = (plan: { result: NonNullable<DayPlan['result']> }) => plan.result.moves.map((move) => move.at)
const order = async () => (await orderAt(cast, 'ready')).id
const state = async (id: number) => (await cast.coordinator.must(readOrder, { id })).state
const visits = async (orderId?: number) => {
  const { people } = await cast.coordinator.must(readBoard, { siteId: 1, first: FIRST })
  return people.flatMap(({ id, name, visits: own }) =>
    own.filter((one) => one.state === 'planned' && (!orderId || one.orderId === orderId)).map((visit) => ({ ...visit, technicianId: id, name })),
  )
}
async function planned(orderId: number, technicianId: number, from: string, to: string) {
  await cast.coordinator.must(rearrange, {
    siteId: 1,
    adds: [{ orderId, version: await version(cast, orderId), technicianId, start: at(from), end: at(to) }],
    despite: 'For the test',
  })
}
const electricians = async () =>
  (await cast.coordinator.must(readBoard, { siteId: 1, first: FIRST })).people.filter(({ trades }) => trades.includes('Electrical'))

test('what waits is planned, nothing is changed by that, and all of it is made at once: each is told, and one act takes it back', async () => {
  const ids = [await order(), await order(), await order()]
  const plan = await computed()
  expect(plan.result.moves.map(({ orderId }) => orderId).sort()).toEqual([...ids].sort())
  expect(plan.result.then.cost).toBeLessThan(plan.result.now.cost)
  expect(plan.result.then).toMatchObject({ planned: 3 })
  expect(
    plan.result.moves.every(({ from, to, because }) => from === null && to !== null && because.some(({ words }) => words === 'done within these days')),
  ).toBe(true)
  // What decided makes the whole difference, but for what rounding takes.
  const told = plan.result.moves.flatMap(({ because }) => because).reduce((sum, { by }) => sum + by, 0)
  expect(Math.abs(told - (plan.result.then.cost - plan.result.now.cost))).toBeLessThan(5)
  expect(await visits()).toEqual([])
  const { undo, taken } = await cast.coordinator.must(takeDayPlan, { siteId: 1, planId: plan.id, version: plan.version, moves: all(plan) })
  expect(taken).toHaveLength(3)
  for (const { orderId, to, number } of plan.result.moves) {
    expect(await state(orderId)).toBe('dispatched')
    expect(await visits(orderId)).toEqual([expect.objectContaining({ from: to!.start, until: to!.end, name: to!.people[0]!.name })])
    // Each is told once, of all of theirs.
    if (to!.people[0]!.name === 'Bram Oyelaran') await cast.technician.hears((sentence) => sentence.includes(`New job ${number}`))
  }
  expect((await ready(plan.id)).result.moves.every((move) => move.taken)).toBe(true)
  await cast.coordinator.must(rearrange, undo)
  for (const id of ids) expect(await state(id)).toBe('ready')
  // Taken back, it can be made again, in part as well; what has ended since is made all the same.
  const back = await ready(plan.id)
  expect(back.result.moves.some((move) => move.taken)).toBe(false)
  const listed = async () => (await cast.coordinator.must(listDayPlans, { siteId: 1 })).rows.find(({ id }) => id === plan.id)!.taken
  expect(await listed()).toBe(0)
  expect((await take(back, [0])).status).toBe(200)
  expect(await listed()).toBe(1)
  expect((await ready(plan.id)).result.moves.map((move) => move.taken)).toEqual([true, false, false])
  const [visit] = await visits(plan.result.moves[0]!.orderId)
  await house.rows("UPDATE visit SET state = 'ended', started_at = planned_start, ended_at = planned_end WHERE id = ?", [visit!.id])
  expect((await ready(plan.id)).result.moves.map((move) => move.taken)).toEqual([true, false, false])
  await house.rows("UPDATE visit SET state = 'planned', started_at = NULL, ended_at = NULL WHERE id = ?", [visit!.id])
})

test('it is made in part, and the rest later; what was made is not made again, and an old version is refused', async () => {
  await order()
  await order()
  const plan = await computed()
  const [first, second] = all(plan)
  expect((await take(plan, [first!])).status).toBe(200)
  expect(await visits()).toHaveLength(1)
  const stale = await take(plan, [second!])
  expect([stale.status, stale.problem.detail]).toEqual([409, 'Some of this plan was taken meanwhile. Nothing of yours was done; look at it again.'])
  const now = await ready(plan.id)
  expect((await take(now, [first!])).problem.detail).toBe('These moves were made already.')
  expect((await take(now, [second!])).status).toBe(200)
  expect(await visits()).toHaveLength(2)
  expect((await take(await ready(plan.id), [99])).problem.detail).toBe('Choose moves of this plan.')
})

test('what was changed since is not moved, nor anything with it', async () => {
  const [one, two] = [await order(), await order()]
  const plan = await computed()
  const who = (await electricians())[0]!
  await planned(two, who.id, '09:00', '10:00')
  const { number } = await cast.coordinator.must(readOrder, { id: two })
  const refused = await take(plan, all(plan))
  expect([refused.status, refused.problem.detail]).toEqual([409, `${number} was planned meanwhile. Nothing of yours was done; compute another plan.`])
  expect(await visits(two)).toHaveLength(1)
  expect(await visits(one)).toHaveLength(0)
})

test('somebody is sick: what they cannot make goes to another, what can stay stays, and it says why', async () => {
  const [sick, other] = await electricians()
  const [one, two] = [await order(), await order()]
  await planned(one, sick!.id, '09:00', '10:00')
  await planned(two, other!.id, '09:00', '10:00')
  await house.rows(`INSERT INTO \`leave\` (technician_id, from_at, until_at) VALUES (${sick!.id}, '2026-11-24 00:00:00', '2026-11-25 00:00:00')`)
  const plan = await computed({ repair: true })
  const [move] = plan.result.moves
  expect(plan.result.moves).toHaveLength(1)
  expect(move).toMatchObject({
    orderId: one,
    from: { people: [{ id: sick!.id }] },
    because: expect.arrayContaining([expect.objectContaining({ words: 'cannot be made as it stands' })]),
  })
  expect(move!.to!.people[0]!.id).not.toBe(sick!.id)
  const { undo } = await cast.coordinator.must(takeDayPlan, { siteId: 1, planId: plan.id, version: plan.version, moves: all(plan) })
  // Given back to whom it was with, and to the other again.
  await cast.coordinator.must(rearrange, { ...undo, despite: 'They come after all' })
  const back = await ready(plan.id)
  expect(back.result.moves.map(({ taken }) => taken)).toEqual([false])
  expect((await take(back, all(back))).status).toBe(200)
  expect((await visits(one))[0]).toMatchObject({ name: move!.to!.people[0]!.name })
  expect((await visits(two))[0]).toMatchObject({ technicianId: other!.id, from: at('09:00') })
  await house.rows(`DELETE FROM \`leave\` WHERE technician_id = ${sick!.id} AND from_at = '2026-11-24 00:00:00'`)
})

test('what was promised is kept, and a promise still to come is planned into', async () => {
  const id = await order()
  await cast.coordinator.must(agreeWindow, { id, version: await version(cast, id), from: at('13:00'), until: at('14:00') })
  const plan = await computed()
  const { start } = plan.result.moves[0]!.to!
  expect(start >= at('13:00') && start <= at('14:00')).toBe(true)
})

test('only those asked about: other people and other orders stay as they are', async () => {
  const [, second] = await electricians()
  const [one, two] = [await order(), await order()]
  const plan = await computed({ technicianIds: [second!.id], orderIds: [one] })
  expect(plan.result.moves.map(({ orderId, to }) => [orderId, to!.people.map(({ id }) => id)])).toEqual([[one, [second!.id]]])
  expect(plan.result.people).toBe(1)
  expect(await state(two)).toBe('ready')
})

test('what if is shown beside it and changes nothing', async () => {
  const [first] = await electricians()
  for (let n = 0; n < 3; n++) await order()
  const plan = await computed({
    whatIf: [
      { kind: 'off', technicianId: first!.id },
      { kind: 'more', technicianId: first!.id },
      { kind: 'overtime', minutes: 60 },
      { kind: 'start', technicianId: first!.id, minutes: -60 },
    ],
  })
  expect(plan.result.whatIf.map(({ words }) => words)).toEqual([
    `Without ${first!.name}`,
    `One more like ${first!.name}`,
    'Up to 60 min overtime',
    `${first!.name} 60 min earlier`,
  ])
  const [off, more] = plan.result.whatIf.map(({ figures }) => figures.cost)
  expect(off).toBeGreaterThanOrEqual(plan.result.then.cost - 0.01)
  expect(more).toBeLessThanOrEqual(plan.result.then.cost + 0.01)
  expect(await visits()).toEqual([])
})

test('the bound comes beside the plan and is never above it', async () => {
  for (let n = 0; n < 2; n++) await order()
  const { id, result } = await computed()
  const { bound } = await until('the bound is there', async () => {
    const one = await cast.coordinator.must(readDayPlan, { siteId: 1, planId: id })
    return one.bound.state === 'computing' ? null : one
  })
  expect(bound).toMatchObject({ state: 'known', converged: true })
  expect((bound as { value: number }).value).toBeLessThanOrEqual(result.then.cost + 0.01)
})

test('the weights of the site decide: where leaving work costs nothing, nothing is planned', async () => {
  await order()
  const admin = await new Client(server.url).signIn('wendeline.stroud')
  const { book, versions } = await admin.must(readRuleBook, { siteId: 1 })
  const none = { emergency: 0, urgent: 0, routine: 0, deferred: 0 }
  const free = { ...book.dayPlans, late: none, unplanned: none }
  const saved = await admin.must(saveRules, { siteId: 1, section: 'dayPlans', version: versions.dayPlans, content: free })
  const { result } = await computed()
  expect(result.moves).toEqual([])
  expect(result.left).toHaveLength(1)
  expect((await admin.call(saveRules, { siteId: 1, section: 'dayPlans', version: saved.versions.dayPlans, content: { ...free, travel: -1 } })).status).toBe(400)
  await admin.must(saveRules, { siteId: 1, section: 'dayPlans', version: saved.versions.dayPlans, content: book.dayPlans })
})

test('who may not dispatch neither asks for one nor reads it, nor is one of another site read here', async () => {
  await order()
  const plan = await computed()
  for (const who of [cast.technician, cast.approver]) {
    expect((await who.call(computeDayPlan, ask())).status).toBe(403)
    expect((await who.call(readDayPlan, { siteId: 1, planId: plan.id })).status).toBe(403)
    expect((await take(plan, all(plan), who)).status).toBe(403)
  }
  const sites = await house.rows<{ id: number }>('SELECT id FROM site WHERE id <> 1 LIMIT 1')
  expect([403, 404]).toContain((await cast.coordinator.call(readDayPlan, { siteId: sites[0]!.id, planId: plan.id })).status)
  expect((await cast.coordinator.call(readDayPlan, { siteId: 1, planId: 999_999 })).status).toBe(404)
})

test('what cannot be asked is refused in words', async () => {
  const nothing = await cast.coordinator.call(computeDayPlan, ask())
  expect(nothing.problem.detail).toMatch(/^There is nothing to plan on these days/)
  await order()
  expect((await cast.coordinator.call(computeDayPlan, ask({ technicianIds: [999_999] }))).problem.detail).toBe('Choose technicians of this site.')
  expect((await cast.coordinator.call(computeDayPlan, ask({ first: '2026-11-01' }))).problem.detail).toBe('Nobody is at work on what is left of these days.')
  for (const wrong of [
    { seconds: 0 },
    { seconds: 61 },
    { days: 2 as never },
    { overtimeMinutes: -1 },
    { whatIf: [{ kind: 'off' } as never] },
    { first: '2026-13-01' },
  ])
    expect((await cast.coordinator.call(computeDayPlan, ask(wrong))).status).toBe(400)
})

test('what was computed is found again, by whoever looks; more than three at once are asked of nobody', async () => {
  await order()
  const plan = await computed({ repair: true })
  const other = await new Client(server.url).signIn('tobias.achterberg')
  const { rows } = await other.must(listDayPlans, { siteId: 1 })
  expect(rows[0]).toMatchObject({ id: plan.id, first: FIRST, last: FIRST, createdBy: 'Maren Quill', state: 'ready', repair: true, taken: 0 })
  expect((await other.must(readDayPlan, { siteId: 1, planId: plan.id })).result!.moves).toEqual(plan.result.moves)
  await take(plan, all(plan))
  expect((await other.must(listDayPlans, { siteId: 1 })).rows[0]!.taken).toBe(all(plan).length)
  expect((await cast.approver.call(listDayPlans, { siteId: 1 })).status).toBe(403)
  await order()
  const asked = await Promise.all(Array.from({ length: 3 }, () => cast.coordinator.must(computeDayPlan, ask({ seconds: 3 }))))
  const fourth = await cast.coordinator.call(computeDayPlan, ask())
  expect([fourth.status, fourth.problem.reasons?.[0]?.code]).toEqual([422, 'too_many'])
  for (const { id } of asked) await ready(id)
})

test('two that are asked for at once are both computed, by whichever server comes first', async () => {
  const second = await house.start({ EVRIX_INBOUND_PORT: '' })
  await order()
  const elsewhere = await new Client(second.url).signIn('tobias.achterberg')
  const [here, there] = await Promise.all([cast.coordinator.must(computeDayPlan, ask()), elsewhere.must(computeDayPlan, ask())])
  const plans = await Promise.all([ready(here.id), ready(there.id)])
  expect(plans[0].result.then.cost).toBe(plans[1].result.then.cost)
  // Both take it: one does, the other reads that it was done.
  const both = await Promise.all([take(plans[0], [0]), take(plans[1], [0], elsewhere)])
  expect(both.map(({ status }) => status).filter((status) => status === 200)).toHaveLength(1)
  expect(await visits()).toHaveLength(1)
})

test('work that asks for a skill is planned for who has it through the last of the days, and left where nobody has', async () => {
  const [asks, plain] = [await order(), await order()]
  const { tradeId } = await cast.coordinator.must(readOrder, { id: asks })
  await cast.coordinator.must(savePlan, { orderId: asks, version: 0, labour: [{ tradeId: tradeId!, people: 1, minutes: 60, skills: ['Live panels'] }] })
  const nobody = await computed()
  expect(nobody.result.moves.map(({ orderId }) => orderId)).toEqual([plain])
  const [one, two] = await electricians()
  const skill = (id: number, validUntil: string) => cast.coordinator.must(saveSkill, { id, name: 'Live panels', certificate: '', validUntil })
  await skill(one!.personId, '2026-11-23')
  await skill(two!.personId, FIRST)
  const plan = await computed()
  expect(plan.result.moves.find(({ orderId }) => orderId === asks)!.to!.people.map(({ name }) => name)).toEqual([two!.name])
})

test('parts ordered for the work on a day that is known: planned from the next day on, and waits where the days end before', async () => {
  const [id, plain] = [await order(), await order()]
  const by = cast.coordinator
  const moved = (plan: { result: NonNullable<DayPlan['result']> }) => plan.result.moves.map(({ orderId }) => orderId)
  const part = await by.must(addPart, { code: 'ZZ-901', name: 'Test belt', unit: 'pc' })
  const [store] = await house.rows<{ id: number }>('SELECT id FROM store WHERE site_id = 1 ORDER BY id LIMIT 1')
  await by.must(savePlan, { orderId: id, version: 0, parts: [{ partId: part.id, quantity: '1' }] })
  const lacks = await computed()
  expect([moved(lacks), lacks.result.notReady.map(({ why }) => why)]).toEqual([[plain], ['1 pc of Test belt is not in stock.']])
  const asked = await by.must(askPurchase, { storeId: store!.id, vendorId: 1, lines: [{ partId: part.id, quantity: '1', orderId: id, priceMinor: 500 }] })
  await by.must(orderPurchase, { id: asked.id, version: asked.version, expectedOn: FIRST })
  const today = await computed()
  expect([moved(today), today.result.notReady.map(({ why }) => why)]).toEqual([[plain], ['1 pc of Test belt is expected on Tue 24 Nov.']])
  const days = await computed({ days: 3 })
  expect(days.result.moves.find(({ orderId }) => orderId === id)!.to!.start >= '2026-11-25T00:00:00.000Z').toBe(true)
  // And it can be taken without a reason.
  expect((await take(days, all(days))).status).toBe(200)
})
