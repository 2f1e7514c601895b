import fc from 'fast-check'
import { dispatchOrder } from '#contract/dispatch'
import { finishJob, stopClock, switchStint } from '#contract/field'
import { moveOrders } from '#contract/lists'
import {
  approveOrder,
  askAgainOrder,
  cancelOrder,
  checkOrder,
  closeOrder,
  discardOrder,
  editOrder,
  holdOrder,
  postOrder,
  recallOrder,
  reopenOrder,
  restoreOrder,
  resumeOrder,
  reverseOrder,
  sendBackOrder,
  submitOrder,
} from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { readRuleBook, saveRules } from '#contract/setup'
import { ORDER_MOVES } from '#core/orders'
import type { OrderMove, OrderState } from '#core/orders'
import { accepted, castAt, Client, complete, House, orderInFull, report } from '../kit'
import type { Cast, Running } from '../kit'

/**
 * Any sequence of moves by anybody, over the real API, one by one and in bulk: no order ever reaches a
 * state the lifecycle table does not lead to, escapes a reason that a rule asks for, or is approved above
 * the limit of whoever approved it.
 */
let house: House
let server: Running
let cast: Cast
let osric: Client

/** Recalling needs one of these, and calling off from 5,000.00 up needs any reason; both beside the table’s own. */
const RECALL_REASONS = ['Wrong trade', 'Not safe to go on']
const LIMITS: Record<string, number> = { 'Ines Ferrall': 250_000, 'Osric Vane': 2_500_000 }
const ESTIMATES = [20_000, 300_000, 3_000_000]

/** The same walks every time, so that a run is repeatable; another number walks elsewhere. */
const SEED = Number(process.env.EVRIX_SEED ?? 20_261_125)

beforeAll(async () => {
  house = await House.open('model')
  server = await house.start()
  cast = await castAt(server.url)
  osric = await new Client(server.url).signIn('osric.vane')
  const admin = await new Client(server.url).signIn('wendeline.stroud')
  const { versions } = await admin.must(readRuleBook, { siteId: 1 })
  await admin.must(saveRules, {
    siteId: 1,
    version: versions.reasons,
    section: 'reasons',
    content: [
      { move: 'recall', when: {}, answers: RECALL_REASONS },
      { move: 'submit', when: { amountFromMinor: 1_000_000 }, answers: [] },
    ],
  })
})
afterAll(() => house?.close())

type Person = 'coordinator' | 'approver' | 'osric' | 'technician' | 'clerk'
type Act = Exclude<OrderMove, 'begin'> | 'restore' | 'stop' | 'estimate'
interface Step {
  act: Act
  by: Person
  reason: string
  bulk: boolean
  estimate: number
}
/** A step as it is drawn: mostly one of what the state at hand offers, so that walks get far; sometimes anything by anybody. */
interface Drawn extends Omit<Step, 'act' | 'by'> {
  offered: boolean
  pick: number
  act: Act
  other: Person | null
}
const PEOPLE: Person[] = ['coordinator', 'approver', 'osric', 'technician', 'clerk']
/** Whoever usually makes a move; others try as well. */
const USUALLY: Partial<Record<Act, Person>> = {
  approve: 'osric',
  sendBack: 'approver',
  start: 'technician',
  finish: 'technician',
  stop: 'technician',
  post: 'clerk',
  close: 'clerk',
  reverse: 'clerk',
}
/** Those that are made of an order that is there: what begins on the spot is made with its order. */
const MOVES = (Object.keys(ORDER_MOVES) as OrderMove[]).filter((move): move is Exclude<OrderMove, 'begin'> => move !== 'begin')
const drawn: fc.Arbitrary<Drawn> = fc.record({
  offered: fc.oneof({ weight: 4, arbitrary: fc.constant(true) }, { weight: 1, arbitrary: fc.constant(false) }),
  pick: fc.nat(1_000),
  act: fc.constantFrom<Act>(...MOVES, 'restore', 'stop', 'estimate'),
  other: fc.oneof({ weight: 5, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: fc.constantFrom(...PEOPLE) }),
  reason: fc.constantFrom('', 'Because', RECALL_REASONS[0]!, `${RECALL_REASONS[1]!}: the floor is wet`),
  bulk: fc.boolean(),
  estimate: fc.constantFrom(...ESTIMATES),
})
/** Moves that end a walk early are not the first to be taken. */
const onward = (order: OrderSheet): Act[] => {
  if (order.discarded) return ['restore']
  const all = MOVES.filter((move) => ORDER_MOVES[move].from.includes(order.state))
  const on = all.filter((move) => ['submit', 'approve', 'dispatch', 'start', 'finish', 'check', 'post'].includes(move))
  return [...on, ...on, ...all, ...(order.state === 'on_job' ? (['stop'] as const) : [])]
}
function stepOf(order: OrderSheet, { offered, pick, act, other, ...rest }: Drawn): Step {
  const choices = onward(order)
  const chosen = offered ? choices[pick % choices.length]! : act
  return { ...rest, act: chosen, by: other ?? USUALLY[chosen] ?? 'coordinator' }
}

const BULK = new Set(['submit', 'approve', 'sendBack', 'recall', 'hold', 'resume', 'reopen', 'check', 'post', 'close', 'cancel', 'discard', 'restore'])
const SINGLE = {
  submit: submitOrder,
  approve: approveOrder,
  sendBack: sendBackOrder,
  askAgain: askAgainOrder,
  recall: recallOrder,
  resume: resumeOrder,
  reopen: reopenOrder,
  check: checkOrder,
  close: closeOrder,
  cancel: cancelOrder,
  discard: discardOrder,
  restore: restoreOrder,
  post: postOrder,
  reverse: reverseOrder,
} as const

/** Tries it; what comes of it is what the database says afterwards. */
async function attempt(order: OrderSheet, { act, by, reason, bulk, estimate }: Step): Promise<number> {
  const client = by === 'osric' ? osric : cast[by]
  const { id, version } = order
  const visitId = order.visits.filter((visit) => visit.technicianId === 1).at(-1)?.id ?? 999_999
  if (act === 'estimate') return (await client.call(editOrder, { id, version, estimateMinor: estimate })).status
  if (act === 'dispatch')
    return (await client.call(dispatchOrder, { id, version, technicianIds: [1], start: '2026-11-24T09:00:00Z', end: '2026-11-24T10:00:00Z' })).status
  if (act === 'start') return (await client.call(switchStint, { visitId, kind: 'work' })).status
  if (act === 'stop') return (await client.call(stopClock, { visitId })).status
  if (act === 'finish') return (await client.call(finishJob, { visitId, result: 'done', symptom: 'Not working', cause: 'Wear', fix: 'Replaced' })).status
  if (bulk && BULK.has(act)) {
    const reply = await client.call(moveOrders, { move: act, items: [{ id, version }], reason, ...(act === 'hold' ? { holdReason: 'part' } : {}) })
    return reply.status === 200 && !reply.body.rows[0]!.moved ? 422 : reply.status
  }
  if (act === 'hold') return (await client.call(holdOrder, { id, version, holdReason: 'access', reason })).status
  return (await client.call(SINGLE[act], { id, version, reason })).status
}

/** What the table allows from here: anything else is a hole. */
function allowed(act: Act, before: OrderState, after: OrderState): boolean {
  if (before === after) return true
  // Finishing stops the clock and, done for good, moves the order; a start or a stop moves it no further than the job.
  if (act === 'restore' || act === 'stop' || act === 'estimate') return false
  const rule = ORDER_MOVES[act]
  if (!rule.from.includes(before)) return false
  if (typeof rule.to === 'string') return rule.to === after
  return (
    { approve: ['ready', 'to_approve'], resume: ['dispatched', 'ready'], reopen: [before === 'cancelled' ? 'draft' : 'ready'] }[act as 'approve']?.includes(
      after,
    ) ?? false
  )
}

test('no sequence of moves escapes the table, a required reason, or a limit', async () => {
  const reached = new Set<OrderState>()
  let moved = 0
  let refused = 0
  await fc.assert(
    fc.asyncProperty(fc.array(drawn, { minLength: 8, maxLength: 18 }), fc.constantFrom(...ESTIMATES), async (steps, estimateMinor) => {
      const id = await accepted(cast, (await report(cast)).id)
      const read = () => orderInFull(cast.coordinator, id)
      await cast.coordinator.must(editOrder, { id, version: (await read()).version, ...complete, estimateMinor })
      for (const draw of steps) {
        const before = await read()
        const one = stepOf(before, draw)
        const status = await attempt(before, one)
        const after = await read()
        const changed = after.state !== before.state || after.discarded !== before.discarded
        expect([one, before.state, status < 500]).toEqual([one, before.state, true])
        // Refused means untouched, whichever way it came.
        if (status !== 200) expect([one, after.version]).toEqual([one, before.version])
        expect([one, before.state, after.state, allowed(one.act, before.state, after.state)]).toEqual([one, before.state, after.state, true])
        if (before.discarded && one.act !== 'restore') expect([one, after.discarded, after.state]).toEqual([one, true, before.state])
        if (!changed) {
          refused += Number(status !== 200)
          continue
        }
        moved++
        reached.add(after.state)
        const event = after.timeline.find((entry) => entry.kind === `order.${one.act}`)
        if (one.act in ORDER_MOVES && ORDER_MOVES[one.act as OrderMove].reason === 'required') expect([one, !!event?.reason?.trim()]).toEqual([one, true])
        if (one.act === 'recall') expect(RECALL_REASONS.some((listed) => event?.reason === listed || event?.reason?.startsWith(`${listed}:`))).toBe(true)
        if (one.act === 'submit' && before.estimateMinor! >= 1_000_000) expect([one, !!event?.reason?.trim()]).toEqual([one, true])
        if (after.state === 'ready' && before.state === 'to_approve') {
          const open = before.approvals.filter((approval) => !approval.decidedAt).map((approval) => approval.id)
          const given = after.approvals.filter((approval) => open.includes(approval.id))
          expect(given.map((approval) => approval.verdict)).toEqual(given.map(() => 'approved'))
          expect(given).not.toEqual([])
          for (const { decidedBy } of given) expect([decidedBy, LIMITS[decidedBy!]! >= after.estimateMinor!]).toEqual([decidedBy, true])
        }
        // Nobody works on what was not approved as it stands.
        if (['dispatched', 'on_job', 'done'].includes(after.state))
          expect(after.approvals.some((approval) => approval.verdict === 'approved' && approval.amountMinor === after.estimateMinor)).toBe(true)
      }
      // One person cannot be on two jobs: whatever runs is ended for the next sequence.
      const last = await read()
      for (const visit of last.visits.filter((one) => one.technicianId === 1)) await cast.technician.call(stopClock, { visitId: visit.id })
    }),
    { numRuns: 20, endOnFailure: true, seed: SEED },
  )
  // The walk went somewhere: most states were reached, and refusals were met as well.
  expect(moved).toBeGreaterThan(60)
  expect(refused).toBeGreaterThan(60)
  expect(reached.size).toBeGreaterThanOrEqual(7)
}, 300_000)
