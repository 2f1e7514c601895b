import { and, asc, eq, inArray, isNotNull, isNull } from 'drizzle-orm'
import * as contract from '#contract/stock'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { canAt, command, inThread, mySite, notAllowed, query } from '#server/kit'
import { rulesOf } from '#server/orders'
import { parts, stores, vendors } from '../tables'
import { beginPurchase } from './changePurchase'
import { myStore } from './moveStock'
import type { ToBuy, ToBuyJob } from './toBuy.worker'

/** It reads three years of movements of every part. */
const weigh = inThread<ToBuyJob, ToBuy>('toBuy.worker')

export const listToBuy = query(contract.listToBuy, async ({ db, who, input, now, service }) => {
  const { siteId } = input
  await mySite(db, who, siteId)
  const [{ buying }, all] = await Promise.all([
    rulesOf(db, siteId),
    db
      .select({ id: stores.id, name: stores.name })
      .from(stores)
      .where(and(eq(stores.siteId, siteId), isNull(stores.retiredAt)))
      .orderBy(isNotNull(stores.carriedBy), asc(stores.id)),
  ])
  return { ...(await weigh({ databaseUrl: service.config.databaseUrl, siteId, now, rules: buying })), stores: all, storeId: all[0]?.id ?? null }
})

export const buyListed = command(contract.buyListed, async ({ tx, who, input, now, tell }) => {
  const { siteId, storeId, lines } = input
  await mySite(tx, who, siteId)
  if (!canAt(who, 'registers.edit', siteId)) throw notAllowed()
  const store = await myStore(tx, who, storeId, 'storeId')
  const vendorIds = [...new Set(lines.map(({ vendorId }) => vendorId))]
  const [known, sellers] = await Promise.all([
    tx
      .select({ id: parts.id })
      .from(parts)
      .where(
        and(
          inArray(
            parts.id,
            lines.map(({ partId }) => partId),
          ),
          isNull(parts.retiredAt),
        ),
      ),
    tx
      .select({ id: vendors.id, name: vendors.name })
      .from(vendors)
      .where(and(inArray(vendors.id, vendorIds), isNull(vendors.retiredAt))),
  ])
  const reasons: Reason[] = []
  if (store.siteId !== siteId) reasons.push({ code: 'store_unknown', sentence: 'Choose a store of this site.', field: 'storeId' })
  if (known.length < lines.length)
    reasons.push({ code: 'part_unknown', sentence: 'One of the parts is not in use any more: look at the list again.', field: 'lines' })
  if (sellers.length < vendorIds.length)
    reasons.push({ code: 'vendor_unknown', sentence: 'One of the vendors is not in use any more: choose another.', field: 'lines' })
  if (reasons.length) throw new Refusal(reasons)
  const rows: { id: number; number: string; vendor: string; lines: number }[] = []
  for (const { id: vendorId, name } of sellers) {
    const theirs = lines.filter((line) => line.vendorId === vendorId).map(({ partId, quantity }) => ({ partId, quantity }))
    const { id, number } = await beginPurchase(tx, who, now, { siteId, storeId, vendorId }, theirs)
    await tell({ kind: 'stock.purchase', siteId, details: { purchaseId: id, number, what: `asked for, ${name}` } })
    rows.push({ id, number, vendor: name, lines: theirs.length })
  }
  return { rows }
})
