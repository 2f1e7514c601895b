import { and, asc, eq, inArray } from 'drizzle-orm'
import type { Statement } from '#contract/ledger'
import { notFound, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { chargeLines, charges, orders, payers, places, postings, sites } from '../tables'

/** "S-2026-11-5200" */
export const statementNumber = (month: string, payerCode: string) => `S-${month}-${payerCode}`

/** What a payer is charged in a month, each job down to hours, parts and bill lines. */
export async function readStatement(db: Reader, who: Asker, payerId: number, month: string): Promise<Outgoing<Statement>> {
  const [payer] = await db.select().from(payers).where(eq(payers.id, payerId))
  if (!payer) throw notFound('payer')
  const rows = await db
    .select({
      charge: charges,
      posting: postings,
      number: orders.number,
      summary: orders.summary,
      noteForPayer: orders.noteForPayer,
      place: places.name,
      site: sites,
    })
    .from(charges)
    .innerJoin(postings, eq(postings.id, charges.postingId))
    .innerJoin(orders, eq(orders.id, charges.orderId))
    .innerJoin(sites, eq(sites.id, postings.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .where(and(eq(charges.payerId, payerId), eq(charges.month, month), withinSites(who, postings.siteId)))
    .orderBy(asc(postings.at), asc(charges.id))
  if (!rows.length) throw notFound('statement')
  const lines = await db
    .select()
    .from(chargeLines)
    .where(
      inArray(
        chargeLines.chargeId,
        rows.map(({ charge }) => charge.id),
      ),
    )
    .orderBy(asc(chargeLines.id))
  const byCharge = groupLines(lines)
  const sum = (pick: (charge: typeof charges.$inferSelect) => number) => rows.reduce((total, { charge }) => total + pick(charge), 0)
  return {
    number: statementNumber(month, payer.code),
    payerId,
    payerCode: payer.code,
    payerName: payer.name,
    month,
    jobs: new Set(rows.map(({ charge }) => charge.orderId)).size,
    netMinor: sum((charge) => charge.netMinor),
    taxMinor: sum((charge) => charge.taxMinor),
    grossMinor: sum((charge) => charge.grossMinor),
    ownCost: payer.kind === 'own',
    currency: rows[0]!.site.currency,
    site: rows[0]!.site.name,
    jobList: rows.map(({ charge, posting, number, summary, noteForPayer, place }) => ({
      chargeId: charge.id,
      orderId: charge.orderId,
      orderNumber: number,
      summary,
      place,
      noteForPayer,
      postedAt: posting.at,
      reversal: posting.kind === 'reversal',
      shareBp: charge.shareBp,
      netMinor: charge.netMinor,
      taxBp: charge.taxBp,
      taxMinor: charge.taxMinor,
      grossMinor: charge.grossMinor,
      lines: (byCharge.get(charge.id) ?? []).map(({ id: _id, chargeId: _charge, ...line }) => line),
    })),
  }
}

function groupLines<Line extends { chargeId: number }>(lines: Line[]): Map<number, Line[]> {
  const groups = new Map<number, Line[]>()
  for (const line of lines) groups.set(line.chargeId, [...(groups.get(line.chargeId) ?? []), line])
  return groups
}
