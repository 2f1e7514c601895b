import { and, asc, eq, lt, lte } from 'drizzle-orm'
import type { AskedWhatIf } from '#contract/dayplans'
import type { Bound, MadePlan, WhatIf } from '#core/dayplans'
import { anyLike, inThread, logger, lookout } from '#server/kit'
import type { Service, Sweep, Works } from '#server/kit'
import { dayPlans } from '../tables'
import type { BoundJob } from './dayPlanBound.worker'
import type { DayPlanJob } from './dayPlan.worker'

const LOOK_EVERY_MS = 1_000
/** Who has taken one up has it ready within its time and this, or somebody else takes it up; twice, then it has failed. */
const LEASE_MS = 30_000
const MOST_ATTEMPTS = 2
/** For how long a bound is looked for. */
export const BOUND_SECONDS = 60
const USUAL_SECONDS = 5
/** For how long plans are kept (our own choice, no source): they are of a day, and grow old with it. */
const KEPT_MS = 8 * 24 * 3_600_000

const plan = inThread<DayPlanJob, MadePlan>('dayPlan.worker', { mostHeapMb: 1_024 })
const bound = inThread<BoundJob, Bound | null>('dayPlanBound.worker', { mostHeapMb: 1_024 })

/** What the minutes of a plan are otherwise, by where technicians stand in it; those who are not in it are left out. */
export function whatIfOf(asked: readonly AskedWhatIf[], technicianIds: readonly number[]): WhatIf[] {
  return asked.flatMap((one): WhatIf[] => {
    if (one.kind === 'overtime') return [one]
    const technician = technicianIds.indexOf(one.technicianId)
    if (technician === -1) return []
    return one.kind === 'start' ? [{ kind: 'start', technician, minutes: one.minutes }] : [{ kind: one.kind, technician }]
  })
}

const waitingAt = (now: Date) => and(eq(dayPlans.state, 'waiting'), lte(dayPlans.tryAt, now))

async function takeUp(service: Service) {
  if (!(await anyLike(service.writer, dayPlans, waitingAt(service.clock())))) return null
  return service.writer.transaction(async (tx) => {
    const now = service.clock()
    const [row] = await tx.select().from(dayPlans).where(waitingAt(now)).orderBy(asc(dayPlans.id)).limit(1).for('update', { skipLocked: true })
    if (!row) return null
    if (row.attempts >= MOST_ATTEMPTS) {
      await tx.update(dayPlans).set({ state: 'failed' }).where(eq(dayPlans.id, row.id))
      return null
    }
    const tryAt = new Date(now.getTime() + 2 * 1000 * (row.ask.seconds ?? USUAL_SECONDS) + LEASE_MS)
    await tx
      .update(dayPlans)
      .set({ tryAt, attempts: row.attempts + 1 })
      .where(eq(dayPlans.id, row.id))
    return row
  })
}

/** Computes what waits; the bound of each is looked for beside the next. Whoever leaves gives back what is not ready. */
async function computeWaiting(service: Service, leaving: Promise<'left'>): Promise<void> {
  for (;;) {
    const row = await takeUp(service)
    if (!row) return
    const { problem, technicianIds } = row.given
    const whatIf = whatIfOf(row.ask.whatIf ?? [], technicianIds)
    const found = await Promise.race([leaving, plan({ problem, whatIf, seconds: row.ask.seconds ?? USUAL_SECONDS, seed: row.ask.seed ?? 1 })])
    if (found === 'left') {
      await service.writer.update(dayPlans).set({ tryAt: service.clock(), attempts: row.attempts }).where(eq(dayPlans.id, row.id))
      return
    }
    const { columns, ...made } = found
    const boundBy = new Date(service.clock().getTime() + BOUND_SECONDS * 1000 + LEASE_MS)
    await service.writer.update(dayPlans).set({ state: 'ready', made, boundBy }).where(eq(dayPlans.id, row.id))
    void lookForBound(service, row.id, { problem, columns, seconds: BOUND_SECONDS })
  }
}
async function lookForBound(service: Service, id: number, job: BoundJob): Promise<void> {
  try {
    const found = await bound(job)
    await service.writer
      .update(dayPlans)
      .set(found ? { bound: found } : { boundBy: service.clock() })
      .where(eq(dayPlans.id, id))
  } catch (error) {
    logger.error({ error }, 'looking for the bound of a plan failed; there is none')
  }
}

export const dayPlanWorks: Works = (service) => {
  let leave: (left: 'left') => void
  const leaving = new Promise<'left'>((resolve) => (leave = resolve))
  const looking = lookout('computing plans', LOOK_EVERY_MS, () => computeWaiting(service, leaving))
  return [
    {
      start: () => looking.start(),
      stop: () => {
        leave('left')
        return looking.stop()
      },
    },
  ]
}

export const sweepDayPlans: Sweep = async (tx, now) => {
  await tx.delete(dayPlans).where(lt(dayPlans.createdAt, new Date(now.getTime() - KEPT_MS)))
}
