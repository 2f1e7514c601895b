import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/ledger'
import { query, withinSites } from '#server/kit'
import { orders, payables, postings, sites, vendors } from '../tables'

const MOST = 100

export default query(contract.listPayables, async ({ db, who }) => {
  const rows = await db
    .select({ payable: payables, vendor: vendors.name, number: orders.number, at: postings.at, currency: sites.currency })
    .from(payables)
    .innerJoin(postings, eq(postings.id, payables.postingId))
    .innerJoin(orders, eq(orders.id, payables.orderId))
    .innerJoin(vendors, eq(vendors.id, payables.vendorId))
    .innerJoin(sites, eq(sites.id, postings.siteId))
    .where(and(withinSites(who, postings.siteId)))
    .orderBy(desc(payables.id))
    .limit(MOST)
  return {
    currency: rows[0]?.currency ?? 'EUR',
    rows: rows.map(({ payable, vendor, number, at }) => ({
      id: payable.id,
      vendor,
      orderId: payable.orderId,
      orderNumber: number,
      netMinor: payable.netMinor,
      taxMinor: payable.taxMinor,
      postedAt: at,
      paid: payable.paymentId !== null,
    })),
  }
})
