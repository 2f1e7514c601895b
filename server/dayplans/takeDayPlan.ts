import { and, eq, inArray } from 'drizzle-orm'
import type { Rearrangement } from '#contract/board'
import * as contract from '#contract/dayplans'
import { isSame, withNeeds } from '#core/dayplans'
import { refuse } from '#core/kit'
import { rearrangeWithin } from '#server/board'
import { command, mySite, notFound, ProblemReply } from '#server/kit'
import type { Tx } from '#server/kit'
import { dayPlans, orders } from '../tables'
import type { PlanGiven } from '../tables'
import { instantOf, standingOf } from './standing'

type Changes = Required<Pick<Rearrangement, 'changes' | 'adds' | 'drops'>>
type Made = NonNullable<(typeof dayPlans.$inferSelect)['made']>

export default command(contract.takeDayPlan, async ({ tx, who, input, now }) => {
  const site = await mySite(tx, who, input.siteId)
  const [row] = await tx
    .select()
    .from(dayPlans)
    .where(and(eq(dayPlans.id, input.planId), eq(dayPlans.siteId, site.id)))
    .for('update')
  if (!row) throw notFound('plan')
  if (row.version !== input.version)
    throw new ProblemReply(409, 'Changed meanwhile', 'Some of this plan was taken meanwhile. Nothing of yours was done; look at it again.', {
      version: row.version,
    })
  const { made } = row
  if (!made) refuse('not_ready', 'The plan is still being computed.')
  if (input.moves.some((at) => !made.moves[at])) refuse('unknown', 'Choose moves of this plan.', 'moves')
  const standing = await standingOf(tx, row)
  const { given } = standing
  const taken = withNeeds(made.moves, input.moves).filter((at) => !standing.taken.includes(at))
  if (!taken.length) refuse('taken', 'These moves were made already.')
  const changes = changesOf(given, made, taken, await versionsOf(tx, given, made, taken))
  const isAny = changes.changes.length + changes.adds.length + changes.drops.length > 0
  const undo = isAny ? (await rearrangeWithin({ tx, who, now }, { siteId: site.id, ...changes })).undo : { siteId: site.id, changes: [], adds: [], drops: [] }
  await tx
    .update(dayPlans)
    .set({ taken: [...new Set([...row.taken, ...taken])], version: row.version + 1 })
    .where(eq(dayPlans.id, row.id))
  return { undo, taken }
})

/** Of orders that nobody was planned for what else was changed since does not matter; that somebody is planned now does. */
async function versionsOf(tx: Tx, given: PlanGiven, made: Made, taken: readonly number[]): Promise<Map<number, number>> {
  const found = taken.map((at) => given.orders[made.moves[at]!.job]!)
  const rows = await tx
    .select({ id: orders.id, number: orders.number, version: orders.version, state: orders.state })
    .from(orders)
    .where(
      inArray(
        orders.id,
        found.map(({ orderId }) => orderId),
      ),
    )
  for (const { number, version, state, id } of rows)
    if (state !== 'ready' && found.some(({ orderId, visits }) => orderId === id && !visits.length))
      throw new ProblemReply(
        409,
        'Changed meanwhile',
        `${number} was ${state === 'dispatched' ? 'planned' : 'changed'} meanwhile. Nothing of yours was done; compute another plan.`,
        { version },
      )
  return new Map(rows.map(({ id, version }) => [id, version]))
}

/** What has to be done on the Board: whoever goes in both keeps their visit, others take over those that are left. */
function changesOf(given: PlanGiven, made: Made, taken: readonly number[], versions: Map<number, number>): Changes {
  const all: Changes = { changes: [], adds: [], drops: [] }
  const instant = (minute: number) => instantOf(given, minute).toISOString()
  for (const at of taken) {
    const { job, from, to } = made.moves[at]!
    const { orderId, visits } = given.orders[job]!
    if (isSame(from, to)) continue
    if (!to) {
      all.drops.push(...visits.map(({ id, version }) => ({ visitId: id, version })))
      continue
    }
    const span = { start: instant(to.start), end: instant(to.start + given.problem.jobs[job]!.minutes) }
    const going = to.technicians.map((t) => given.technicianIds[t]!)
    const free = visits.filter(({ technicianId }) => !going.includes(technicianId))
    for (const technicianId of going) {
      const own = visits.find((visit) => visit.technicianId === technicianId) ?? free.shift()
      if (own) all.changes.push({ visitId: own.id, version: own.version, technicianId, ...span })
      else all.adds.push({ orderId, version: versions.get(orderId)!, technicianId, ...span })
    }
    all.drops.push(...free.map(({ id, version }) => ({ visitId: id, version })))
  }
  return all
}
