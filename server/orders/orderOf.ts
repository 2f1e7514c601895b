import { eq } from 'drizzle-orm'
import { namePlace } from '#server/places'
import { orders, sites } from '../tables'
import type { Telling } from '#server/kit'

/** The order an event tells of, with its site and the name of its place. */
export async function orderOf({ tx, event }: Telling) {
  const [found] = await tx
    .select({ order: orders, site: sites })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .where(eq(orders.id, event.orderId!))
  return { ...found!, place: await namePlace(tx, found!.order.placeId) }
}
