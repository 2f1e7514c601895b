import { asc, eq } from 'drizzle-orm'
import type { PromisesSheet } from '#contract/orders'
import { HOLD_REASONS } from '#core/orders'
import { withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { sites, targetRules } from '../tables'
import { holdsThatStop } from './targetOf'

/** What is promised at the sites of this administrator. */
export async function readPromisesSheet(db: Reader, who: Asker): Promise<PromisesSheet> {
  const { id, priority, clock, responseMinutes, completionMinutes } = targetRules
  const targets = await db
    .select({ id, priority, clock, responseMinutes, completionMinutes, siteCode: sites.code })
    .from(targetRules)
    .innerJoin(sites, eq(sites.id, targetRules.siteId))
    .where(withinSites(who, targetRules.siteId))
    .orderBy(asc(targetRules.id))
  const stops = await holdsThatStop(db)
  return { targets, holds: HOLD_REASONS.map((reason) => ({ reason, stopsClock: stops.includes(reason) })), everywhere: who.siteIds === null }
}
