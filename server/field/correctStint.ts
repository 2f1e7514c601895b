import { and, eq, ne } from 'drizzle-orm'
import * as contract from '#contract/field'
import type { CorrectedTime } from '#contract/field'
import { correctedStint } from '#core/field'
import type { Worked } from '#core/field'
import { notFound } from '#server/kit'
import { calendarOf } from '#server/orders'
import { stints } from '../tables'
import { jobCommand } from './jobCommand'
import type { OnSite } from './onSite'
import { othersOf, reckonStint } from './stint'

/** Time of whoever is on the job as it really was, with a reason. @throws Refusal with why it cannot be put right like that */
export async function correctStintOn(job: OnSite, input: CorrectedTime): Promise<void> {
  const { tx, visit, order, at, tell } = job
  const asked = { startAt: new Date(input.startAt), endAt: new Date(input.endAt) }
  const others = await besides(job, asked, input.stintId)
  const [mine] = await tx
    .select()
    .from(stints)
    .where(
      and(eq(stints.id, input.stintId), eq(stints.visitId, visit.id), visit.technicianId === null ? undefined : eq(stints.technicianId, visit.technicianId)),
    )
  if (!mine) throw notFound('time')
  const { zone } = await calendarOf(tx, order.siteId)
  correctedStint({ ...mine, orderState: order.state }, asked, others, at, zone)
  const minutes = await reckonStint(tx, order, visit, mine, asked)
  await tell({
    kind: 'field.correct',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: input.reason,
    details: {
      stint: mine.kind,
      minutes,
      fromStart: mine.startAt.toISOString(),
      fromEnd: mine.endAt!.toISOString(),
      start: asked.startAt.toISOString(),
      end: asked.endAt.toISOString(),
    },
  })
}

/** Other time of the same person on whatever job; of a vendor, who may send several people, on this visit. */
async function besides({ tx, visit, order }: OnSite, asked: { startAt: Date; endAt: Date }, stintId: number): Promise<(Worked & { number: string })[]> {
  if (visit.technicianId !== null) return othersOf(tx, visit.technicianId, asked, null, stintId)
  const rows = await tx
    .select({ startAt: stints.startAt, endAt: stints.endAt })
    .from(stints)
    .where(and(eq(stints.visitId, visit.id), ne(stints.id, stintId)))
  return rows.map((row) => ({ ...row, number: order.number }))
}

export default jobCommand(contract.correctStint, (job) => correctStintOn(job, job.input))
