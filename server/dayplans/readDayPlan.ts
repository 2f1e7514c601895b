import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/dayplans'
import type { DayPlan, DayPlanLeft, PlannedFor } from '#contract/dayplans'
import { saysMove } from '#core/dayplans'
import type { PlannedJob } from '#core/dayplans'
import { mySite, notFound, query } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { accounts, dayPlans, orders, people, places, technicians } from '../tables'
import { whatIfOf } from './planner'
import { instantOf, standingOf } from './standing'

export default query(contract.readDayPlan, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const [row] = await db
    .select()
    .from(dayPlans)
    .where(and(eq(dayPlans.id, input.planId), eq(dayPlans.siteId, site.id)))
  if (!row) throw notFound('plan')
  const bound: DayPlan['bound'] = row.bound
    ? { state: 'known', value: row.bound.value, converged: row.bound.converged }
    : row.boundBy && row.boundBy <= now
      ? { state: 'none' }
      : { state: 'computing' }
  const head = {
    id: row.id,
    version: row.version,
    state: row.state,
    first: row.first,
    last: row.last,
    createdAt: row.createdAt,
    createdBy: row.createdByName,
    ask: row.ask,
    bound,
  }
  const { made, given } = row
  if (!made) return { ...head, result: null }
  const about = await aboutOrders(
    db,
    [...given.orders, ...given.notReady].map(({ orderId }) => orderId),
  )
  const names = await namesOf(db, given.technicianIds)
  const minute = (at: number) => instantOf(given, at)
  const standing = await standingOf(db, row)
  const planned = (job: number, one: PlannedJob | null): Outgoing<PlannedFor> | null =>
    one && {
      start: minute(one.start),
      end: minute(one.start + given.problem.jobs[job]!.minutes),
      people: one.technicians.map((t) => ({ id: given.technicianIds[t]!, name: names.get(given.technicianIds[t]!) ?? '' })),
    }
  const left = (orderId: number, why: string): DayPlanLeft => {
    const { number, summary, priority } = about.get(orderId)!
    return { orderId, number, summary, priority, why }
  }
  const sayWhatIf = whatIfOf(row.ask.whatIf ?? [], given.technicianIds)
  return {
    ...head,
    result: {
      now: made.now,
      then: made.then,
      inserted: made.inserted,
      rounds: made.rounds,
      seed: row.ask.seed ?? 1,
      people: given.technicianIds.length,
      whatIf: made.whatIf.map((figures, n) => ({ words: saysWhatIf(sayWhatIf[n]!, (t) => names.get(given.technicianIds[t]!) ?? ''), figures })),
      moves: made.moves.map((move, at) => {
        const { orderId } = given.orders[move.job]!
        const { number, summary, priority, placeCode } = about.get(orderId)!
        return {
          at,
          orderId,
          number,
          summary,
          placeCode,
          priority,
          promised: given.problem.jobs[move.job]!.now?.promised ?? false,
          from: planned(move.job, move.from),
          to: planned(move.job, move.to),
          because: saysMove(move),
          needs: move.needs,
          taken: standing.taken.includes(at),
        }
      }),
      left: made.plan.flatMap((one, job) => (one ? [] : [left(given.orders[job]!.orderId, whyLeft(given.problem.jobs[job]!.able.length))])),
      notReady: given.notReady.map(({ orderId, why }) => left(orderId, why)),
    },
  }
})
const whyLeft = (able: number) =>
  able ? 'No time is left for it with anybody who may do it, at what else it would cost.' : 'Nobody who is asked about has its trade.'

function saysWhatIf(what: ReturnType<typeof whatIfOf>[number], name: (technician: number) => string): string {
  const hours = (minutes: number) => `${Math.abs(minutes)} min`
  switch (what.kind) {
    case 'more':
      return `One more like ${name(what.technician)}`
    case 'off':
      return `Without ${name(what.technician)}`
    case 'overtime':
      return what.minutes ? `Up to ${hours(what.minutes)} overtime` : 'No overtime'
    case 'start':
      return `${name(what.technician)} ${hours(what.minutes)} ${what.minutes < 0 ? 'earlier' : 'later'}`
  }
}
async function aboutOrders(db: Reader, ids: readonly number[]) {
  const rows = ids.length
    ? await db
        .select({ id: orders.id, number: orders.number, summary: orders.summary, priority: orders.priority, placeCode: places.code })
        .from(orders)
        .leftJoin(places, eq(places.id, orders.placeId))
        .where(inArray(orders.id, [...new Set(ids)]))
    : []
  return new Map(rows.map((row) => [row.id, row]))
}
async function namesOf(db: Reader, technicianIds: readonly number[]): Promise<Map<number, string>> {
  if (!technicianIds.length) return new Map()
  const rows = await db
    .select({ id: technicians.id, name: people.name })
    .from(technicians)
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(inArray(technicians.id, [...technicianIds]))
  return new Map(rows.map(({ id, name }) => [id, name]))
}
