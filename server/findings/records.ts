import { and, asc, eq, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { findingState, mayTakeBack } from '#core/findings'
import { gathered, statement } from '#server/kit'
import type { Reader } from '#server/kit'
import { assets, findingPhotos, findings, orders, places } from '../tables'

/** The second door of this room: findings as pages of other rooms show them. */
export type FindingRecord = typeof findings.$inferSelect

/** The order something was found on. */
export const foundOn = orders
/** The order that answers it. */
export const answering = alias(orders, 'answering')

/** Findings with what is said of them; one statement. */
export const selectFindings = (db: Reader) =>
  db
    .select({
      finding: findings,
      place: { code: places.code, name: places.name, path: places.path },
      asset: { tag: assets.tag, name: assets.name },
      foundOn: { id: foundOn.id, number: foundOn.number },
      answeredBy: { id: answering.id, number: answering.number, state: answering.state, discardedAt: answering.discardedAt },
      photos: gathered(
        { id: findingPhotos.attachmentId },
        sql`from ${findingPhotos} where ${findingPhotos.findingId} = ${findings.id}`,
        findingPhotos.attachmentId,
      ),
    })
    .from(findings)
    .innerJoin(foundOn, eq(foundOn.id, findings.orderId))
    .leftJoin(places, eq(places.id, findings.placeId))
    .leftJoin(assets, eq(assets.id, findings.assetId))
    .leftJoin(answering, eq(answering.id, findings.followUpOrderId))

export type FoundRow = Awaited<ReturnType<typeof findingsWhere>>[number]
export const findingsWhere = (db: Reader, where: SQL | undefined, most = 500) => selectFindings(db).where(where).orderBy(asc(findings.id)).limit(most)

/** What decides where a finding stands. */
export const factsOfFinding = ({ finding: { fixedNow, setAsideAt }, answeredBy }: Pick<FoundRow, 'finding' | 'answeredBy'>) => ({
  fixedNow,
  setAsideAt,
  order: answeredBy && { state: answeredBy.state, discarded: answeredBy.discardedAt !== null },
})

/** "P-204 Circulation pump" for an asset, "GAN-102 Studio 2" for a place. */
export const whereFound = ({ place, asset }: Pick<FoundRow, 'place' | 'asset'>): string | null =>
  asset ? `${asset.tag} ${asset.name}` : place && `${place.code} ${place.name}`

export const pinOf = ({ planId, east, north }: FindingRecord) =>
  planId !== null && east !== null && north !== null ? { planId, at: [east, north] as [number, number] } : null

const ofOrder = statement(['orderId', 'answeredBy'], (db, { orderId, answeredBy }) =>
  selectFindings(db)
    .where(or(eq(findings.orderId, orderId), and(eq(findings.followUpOrderId, answeredBy))))
    .orderBy(asc(findings.id)),
)

/** What was found on an order, and what was found elsewhere that it answers. */
export async function findingsOf(db: Reader, orderId: number): Promise<{ found: FoundRow[]; answers: FoundRow[] }> {
  const rows = await ofOrder(db, { orderId, answeredBy: orderId })
  return { found: rows.filter((row) => row.finding.orderId === orderId), answers: rows.filter((row) => row.finding.followUpOrderId === orderId) }
}

/** The same as whoever is there sees it. */
export async function jobFindings(db: Reader, orderId: number, visitId: number) {
  const { found, answers } = await findingsOf(db, orderId)
  const shown = (row: FoundRow) => {
    const { id, mark, text, severity, fixedNow, at, foundBy } = row.finding
    const facts = factsOfFinding(row)
    return {
      ...{ id, mark, text, severity, fixedNow, at, who: foundBy, photos: row.photos },
      where: whereFound(row),
      pin: pinOf(row.finding),
      state: findingState(facts),
      mayTakeBack: row.finding.visitId === visitId && mayTakeBack(facts),
    }
  }
  return { findings: found.map(shown), answers: answers.map(shown) }
}
