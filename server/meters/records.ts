import { and, asc, desc, eq, inArray, isNull, like, lte, sql } from 'drizzle-orm'
import type { Reader } from '#server/kit'
import { assets, meters, readings } from '../tables'

/** The second door of this room: what other rooms show of meters. */
export type ReadingRecord = typeof readings.$inferSelect

/** As many as a trend goes by, and a little more. */
const NEWEST = 30
const MOST_METERS = 12

/** The newest readings of these meters that count, the newest first; one statement. */
export async function newestReadings(db: Reader, meterIds: readonly number[], most = NEWEST): Promise<ReadingRecord[]> {
  if (!meterIds.length) return []
  const nth = sql<number>`row_number() over (partition by ${readings.meterId} order by ${readings.at} desc, ${readings.id} desc)`.as('nth')
  const ranked = db
    .select({ id: readings.id, nth })
    .from(readings)
    .where(and(inArray(readings.meterId, [...meterIds]), isNull(readings.struckAt)))
    .as('ranked')
  const rows = await db
    .select({ reading: readings })
    .from(readings)
    .innerJoin(ranked, eq(ranked.id, readings.id))
    .where(lte(ranked.nth, most))
    .orderBy(desc(readings.at), desc(readings.id))
  return rows.map(({ reading }) => reading)
}

/** The meters of an asset and of its parts, in use. */
export async function metersBelow(db: Reader, assetId: number) {
  const path = sql`(select top.path from ${assets} top where top.id = ${assetId})`
  const rows = await db
    .select({ meter: meters, tag: assets.tag })
    .from(meters)
    .innerJoin(assets, eq(assets.id, meters.assetId))
    .where(and(like(assets.path, sql`concat(${path}, '%')`), isNull(meters.retiredAt)))
    .orderBy(asc(assets.path), asc(meters.id))
    .limit(MOST_METERS)
  return rows
}

/** The same as whoever is there sees them. */
export async function jobMeters(db: Reader, assetId: number | null, visitId: number) {
  if (assetId === null) return []
  const rows = await metersBelow(db, assetId)
  const newest = await newestReadings(
    db,
    rows.map(({ meter }) => meter.id),
  )
  return rows.map(({ meter: { id, name, unit, rollsAt }, tag }) => {
    const mine = newest.filter(({ meterId }) => meterId === id)
    return {
      ...{ id, name, unit, rollsAt: rollsAt && plain(rollsAt), tag },
      readings: mine.map(({ value, at, anew }) => ({ value: plain(value), at, anew })),
      readHere: mine.filter((one) => one.visitId === visitId).map(({ value }) => plain(value))[0] ?? null,
    }
  })
}

/** "1180" for what the database keeps as "1180.000". */
export const plain = (value: string): string => (value.includes('.') ? value.replace(/\.?0+$/, '') : value)
