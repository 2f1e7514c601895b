import { and, asc, eq, inArray, lte } from 'drizzle-orm'
import { CLOCK, lookout, recordEvent, takeDue } from '#server/kit'
import type { Service, Works } from '#server/kit'
import { orders, quotes, vendors } from '../tables'
import { needsPrice } from './quotes'

const LOOK_EVERY_MS = 5_000
const TURNS = [
  { which: 'remindAt', kind: 'quote.remind' },
  { which: 'tellAt', kind: 'quote.silent' },
] as const

const unansweredOn = (which: 'remindAt' | 'tellAt') => (now: Date) => and(lte(quotes[which], now), eq(quotes.state, 'asked'))

/** One look at prices nobody has named yet, each told of once. */
async function lookAtUnanswered(service: Service): Promise<void> {
  for (const { which, kind } of TURNS)
    await takeDue(service, { table: quotes, where: unansweredOn(which) }, async (tx, now, most) => {
      const rows = await tx
        .select({ quote: quotes, order: orders, vendor: vendors.name })
        .from(quotes)
        .innerJoin(vendors, eq(vendors.id, quotes.vendorId))
        .innerJoin(orders, eq(orders.id, quotes.orderId))
        .where(unansweredOn(which)(now))
        .orderBy(asc(quotes.id))
        .limit(most)
        .for('update', { skipLocked: true })
      const ids = rows.map(({ quote }) => quote.id)
      if (ids.length)
        await tx
          .update(quotes)
          .set({ [which]: null })
          .where(inArray(quotes.id, ids))
      // Nobody is asked about work that is done or given up.
      for (const { quote, vendor } of rows.filter(({ order }) => needsPrice(order)))
        await recordEvent(tx, CLOCK, now, { kind, siteId: quote.siteId, orderId: quote.orderId, details: { quoteId: quote.id, vendor } })
      return rows.length
    })
}

export const quoteWorks: Works = (service) => [lookout('watching prices nobody has named', LOOK_EVERY_MS, () => lookAtUnanswered(service))]
