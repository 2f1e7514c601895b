import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/methods'
import { inThread, query } from '#server/kit'
import { seenOrder } from '#server/orders'
import { assets, methodEditions, methods } from '../tables'
import type { CostsJob, Offer, OffersJob } from './methodOffers.worker'
import { planNames } from './names'

const earlier = inThread<OffersJob | CostsJob, Offer[] | number[]>('methodOffers.worker', { stays: true })

/** Looked for in a thread of its own: it reads much history. */
export default query(contract.offerMethods, async ({ db, who, input, service }) => {
  const order = await seenOrder(db, who, input.orderId)
  const [asset] = order.assetId ? await db.select({ classCode: assets.classCode }).from(assets).where(eq(assets.id, order.assetId)) : []
  const { id: orderId, siteId, kind, categoryId, tradeId, assetId, placeId } = order
  const offers = (await earlier({
    databaseUrl: service.config.databaseUrl,
    words: input.q ?? '',
    ask: { orderId, siteId, kind, categoryId, tradeId, assetId, placeId, classCode: asset?.classCode ?? null, text: `${order.summary} ${order.description}` },
  })) as Offer[]
  const ids = offers.map(({ id }) => id)
  const found = ids.length
    ? await db
        .select({ id: methods.id, code: methods.code, name: methods.name, edition: methods.edition, content: methodEditions.content })
        .from(methods)
        .innerJoin(methodEditions, and(eq(methodEditions.methodId, methods.id), eq(methodEditions.edition, methods.edition)))
        .where(inArray(methods.id, ids))
    : []
  const rows = offers.flatMap(({ id, reasons }) => found.filter((one) => one.id === id).map((one) => ({ ...one, reasons })))
  return {
    rows,
    names: await planNames(
      db,
      rows.map(({ content }) => content),
    ),
  }
})

/** What the last finished orders like one really cost. */
export async function costsLike(databaseUrl: string, like: CostsJob['like']): Promise<number[]> {
  return (await earlier({ databaseUrl, like })) as number[]
}
