import { and, desc, eq, inArray, or } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { SQL } from 'drizzle-orm'
import type { TransferRow } from '#contract/assets'
import { moveTransfer, TRANSFER_MOVES } from '#core/assets'
import type { TransferFacts } from '#core/assets'
import { canAt, notFound } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { accounts, assets, people, places, sites, transfers } from '../tables'

export type TransferRecord = typeof transfers.$inferSelect

/** What the rules need to know of a transfer and of who acts. */
export const transferFacts = (transfer: TransferRecord, who: Asker): TransferFacts => ({
  kind: transfer.kind,
  state: transfer.state,
  askedByMe: transfer.askedBy === who.accountId,
  answersThere: canAt(who, 'registers.edit', transfer.toSiteId),
  answersHere: canAt(who, 'registers.edit', transfer.fromSiteId),
})

/** Transfers from or to sites somebody sees, the newest first. */
export async function transferRows(db: Reader, who: Asker, which?: SQL, limit = 100): Promise<Outgoing<TransferRow>[]> {
  const [fromSite, toSite, fromPlace, toPlace] = [alias(sites, 'from_site'), alias(sites, 'to_site'), alias(places, 'from_place'), alias(places, 'to_place')]
  const [asker, askerPerson, decider, deciderPerson] = [
    alias(accounts, 'asker'),
    alias(people, 'asker_person'),
    alias(accounts, 'decider'),
    alias(people, 'decider_person'),
  ]
  const mine =
    who.siteIds === null
      ? undefined
      : who.siteIds.length
        ? or(inArray(transfers.fromSiteId, who.siteIds), inArray(transfers.toSiteId, who.siteIds))
        : eq(transfers.id, -1)
  const rows = await db
    .select({
      transfer: transfers,
      asset: { id: assets.id, tag: assets.tag, name: assets.name },
      fromSite: fromSite.name,
      toSite: toSite.name,
      fromPlace: fromPlace.code,
      fromName: fromPlace.name,
      toPlace: toPlace.code,
      toName: toPlace.name,
      askedBy: askerPerson.name,
      decidedBy: deciderPerson.name,
    })
    .from(transfers)
    .innerJoin(assets, eq(assets.id, transfers.assetId))
    .innerJoin(fromSite, eq(fromSite.id, transfers.fromSiteId))
    .innerJoin(toSite, eq(toSite.id, transfers.toSiteId))
    .innerJoin(fromPlace, eq(fromPlace.id, transfers.fromPlaceId))
    .leftJoin(toPlace, eq(toPlace.id, transfers.toPlaceId))
    .innerJoin(asker, eq(asker.id, transfers.askedBy))
    .innerJoin(askerPerson, eq(askerPerson.id, asker.personId))
    .leftJoin(decider, eq(decider.id, transfers.decidedBy))
    .leftJoin(deciderPerson, eq(deciderPerson.id, decider.personId))
    .where(and(mine, which))
    .orderBy(desc(transfers.id))
    .limit(limit)
  return rows.map(({ transfer, ...row }) => ({
    id: transfer.id,
    version: transfer.version,
    asset: row.asset,
    kind: transfer.kind,
    state: transfer.state,
    from: { siteId: transfer.fromSiteId, site: row.fromSite, place: `${row.fromPlace} ${row.fromName}` },
    to: { siteId: transfer.toSiteId, site: row.toSite, place: row.toPlace ? `${row.toPlace} ${row.toName}` : null },
    reason: transfer.reason,
    returnBy: transfer.returnBy,
    askedBy: row.askedBy,
    askedAt: transfer.askedAt,
    decidedBy: row.decidedBy,
    decidedAt: transfer.decidedAt,
    note: transfer.note,
    returnedAt: transfer.returnedAt,
    may: TRANSFER_MOVES.filter((move) => moveTransfer(transferFacts(transfer, who), move).state !== null),
  }))
}

/** One of them. @throws ProblemReply 404 when neither end of it is theirs to see */
export async function transferRow(db: Reader, who: Asker, id: number): Promise<Outgoing<TransferRow>> {
  const [row] = await transferRows(db, who, eq(transfers.id, id), 1)
  if (!row) throw notFound('transfer')
  return row
}
