import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { Reader } from '#server/kit'
import { sites } from '../tables'

/** The day it is at a site, as "2026-11-26"; for what serves every site, the day of the first one. */
export async function todayAt(db: Reader, siteId: number | null, now: Date): Promise<string> {
  const asked = db.select({ zone: sites.zone }).from(sites)
  const [site] = await (siteId === null ? asked.orderBy(sites.id).limit(1) : asked.where(eq(sites.id, siteId)))
  return DateTime.fromJSDate(now, { zone: site?.zone ?? 'utc' }).toISODate()!
}
