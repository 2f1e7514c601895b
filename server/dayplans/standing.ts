import { inArray } from 'drizzle-orm'
import { isSame } from '#core/dayplans'
import type { PlannedJob } from '#core/dayplans'
import type { Reader } from '#server/kit'
import { dayPlans, orders, visits } from '../tables'
import type { PlanGiven } from '../tables'

type Plan = Pick<typeof dayPlans.$inferSelect, 'made' | 'given' | 'taken' | 'createdAt'>
type VisitRow = Awaited<ReturnType<typeof visitsOf>>[number]

/** The instant of a minute of a plan. */
export const instantOf = (given: PlanGiven, minute: number): Date => new Date(new Date(given.origin).getTime() + minute * 60_000)

/**
 * Which moves of a plan are made and stand. Of one that was taken back on the Board, so that all lies as it did before, the
 * visits are answered as they are now: it can be made again.
 */
export async function standingOf(db: Reader, { made, given, taken, createdAt }: Plan): Promise<Pick<Plan, 'taken' | 'given'>> {
  if (!made || !taken.length) return { taken, given }
  const ids = taken.map((at) => given.orders[made.moves[at]!.job]!.orderId)
  const [states, all] = await Promise.all([db.select({ id: orders.id, state: orders.state }).from(orders).where(inArray(orders.id, ids)), visitsOf(db, ids)])
  const isReady = new Set(states.flatMap(({ id, state }) => (state === 'ready' ? [id] : [])))
  const lie = [...given.orders]
  const stand = taken.filter((at) => {
    const { job, from, to } = made.moves[at]!
    if (isSame(from, to)) return true
    const { orderId } = given.orders[job]!
    const theirs = all.filter((visit) => visit.orderId === orderId)
    const live = theirs.filter(({ state }) => state === 'planned')
    // Nobody is planned, as before, and nobody has been there since.
    const isAsBefore = from ? null : isReady.has(orderId) && !live.length && !theirs.some(({ state, endedAt }) => state === 'ended' && endedAt! > createdAt)
    const back = from ? whoGoes(live, from, given) : isAsBefore ? [] : null
    if (back) lie[job] = { orderId, visits: back.map(({ id, version, technicianId }) => ({ id, version, technicianId: technicianId! })) }
    return !back
  })
  return { taken: stand, given: { ...given, orders: lie } }
}

/** The visits by which a job is planned so, or null where it is not. */
function whoGoes(live: readonly VisitRow[], { start, technicians }: PlannedJob, given: PlanGiven): VisitRow[] | null {
  const at = instantOf(given, start).getTime()
  const who = technicians.map((t) => given.technicianIds[t]!)
  const there = live.filter(({ plannedStart, technicianId }) => plannedStart.getTime() === at && who.includes(technicianId ?? 0))
  return there.length === who.length ? there : null
}

const visitsOf = (db: Reader, orderIds: number[]) =>
  db
    .select({
      id: visits.id,
      version: visits.version,
      orderId: visits.orderId,
      state: visits.state,
      technicianId: visits.technicianId,
      plannedStart: visits.plannedStart,
      endedAt: visits.endedAt,
    })
    .from(visits)
    .where(inArray(visits.orderId, orderIds))
