import { and, eq } from 'drizzle-orm'
import type { TargetRule } from '#core/orders'
import { saveSetting } from '#server/kit'
import type { Tx } from '#server/kit'
import { targetExceptions, targetRules } from '../tables'

/** What a priority promises at its site from now on; promises already made stay. */
export async function setPromise(tx: Tx, ruleId: number, rule: TargetRule): Promise<void> {
  await tx.update(targetRules).set(rule).where(eq(targetRules.id, ruleId))
}

/** What a priority promises for one category, instead of what it usually does. */
export async function setPromiseException(tx: Tx, exception: Omit<typeof targetExceptions.$inferInsert, 'id'>): Promise<void> {
  const { clock, responseMinutes, completionMinutes } = exception
  await tx.insert(targetExceptions).values(exception).onDuplicateKeyUpdate({ set: { clock, responseMinutes, completionMinutes } })
}

/** The usual promise holds again. Answers what was promised instead, or null when there is no such exception at the site. */
export async function dropException(tx: Tx, siteId: number, id: number) {
  const mine = and(eq(targetExceptions.id, id), eq(targetExceptions.siteId, siteId))
  const [before] = await tx.select().from(targetExceptions).where(mine).for('update')
  if (before) await tx.delete(targetExceptions).where(mine)
  return before ?? null
}

/** The setting that says which holds stop the clock. */
export const STOPPING_HOLDS = 'holds_that_stop'

export const setHoldsThatStop = (tx: Tx, reasons: string[]): Promise<void> => saveSetting(tx, STOPPING_HOLDS, reasons)
