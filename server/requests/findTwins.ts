import { and, desc, eq, gt, inArray, or } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { rankTwins } from '#core/requests'
import { query, withinSites } from '#server/kit'
import { isOver } from '#core/orders'
import { orders, requestOrders, requests } from '../tables'

const RECENT_MS = 60 * 86_400_000
const MOST = 4

export default query(contract.findTwins, async ({ db, who, input, now }) => {
  const rows = await db
    .select({
      id: requests.id,
      number: requests.number,
      text: requests.summary,
      receivedAt: requests.receivedAt,
      state: requests.state,
      orderState: orders.state,
    })
    .from(requests)
    .leftJoin(requestOrders, eq(requestOrders.requestId, requests.id))
    .leftJoin(orders, eq(orders.id, requestOrders.orderId))
    .where(
      and(
        or(eq(requests.placeId, input.placeId), input.assetId ? eq(requests.assetId, input.assetId) : undefined),
        inArray(requests.state, ['new', 'asked', 'accepted']),
        gt(requests.receivedAt, new Date(now.getTime() - RECENT_MS)),
        withinSites(who, requests.siteId),
      ),
    )
    .orderBy(desc(requests.receivedAt))
    .limit(60)
  const open = rows.filter((row) => row.state !== 'accepted' || !row.orderState || !isOver(row.orderState))
  const once = open.filter((row, index) => open.findIndex((one) => one.id === row.id) === index)
  return {
    rows: rankTwins(input.words ?? '', once)
      .slice(0, MOST)
      .map(({ id, number, text, receivedAt }) => ({ id, number, summary: text, receivedAt })),
  }
})
