import { and, desc, eq, sql } from 'drizzle-orm'
import * as contract from '#contract/ledger'
import { query, withinSites } from '#server/kit'
import { charges, payers, periods, postings } from '../tables'
import { statementNumber } from './statement'

export default query(contract.listStatements, async ({ db, who, input }) => {
  const periodRows = await db
    .select({ month: periods.month, closedAt: sql<string | null>`max(${periods.closedAt})` })
    .from(periods)
    .where(withinSites(who, periods.siteId))
    .groupBy(periods.month)
    .orderBy(desc(periods.month))
  const months = periodRows.map(({ month, closedAt }) => ({ month, closedAt: closedAt ? `${closedAt.replace(' ', 'T')}Z` : null }))
  const month = input.month ?? months[0]?.month ?? ''
  const rows = await db
    .select({
      payerId: payers.id,
      code: payers.code,
      name: payers.name,
      kind: payers.kind,
      jobs: sql<string>`count(distinct ${charges.orderId})`,
      net: sql<string>`sum(${charges.netMinor})`,
      tax: sql<string>`sum(${charges.taxMinor})`,
      gross: sql<string>`sum(${charges.grossMinor})`,
    })
    .from(charges)
    .innerJoin(payers, eq(payers.id, charges.payerId))
    .innerJoin(postings, eq(postings.id, charges.postingId))
    .where(and(eq(charges.month, month), withinSites(who, postings.siteId)))
    .groupBy(payers.id)
    .orderBy(payers.code)
  return {
    months,
    month,
    rows: rows.map((row) => ({
      number: statementNumber(month, row.code),
      payerId: row.payerId,
      payerCode: row.code,
      payerName: row.name,
      month,
      jobs: Number(row.jobs),
      netMinor: Number(row.net),
      taxMinor: Number(row.tax),
      grossMinor: Number(row.gross),
      ownCost: row.kind === 'own',
    })),
  }
})
