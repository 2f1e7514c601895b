import Joi from 'joi'
import { endpoint, field } from '#contract/kit'

/** A part that is time to buy, with how that comes about. */
export interface ToBuyRow {
  partId: number
  code: string
  name: string
  unit: string
  vendorId: number | null
  vendor: string | null
  onHand: string
  position: number
  reorderPoint: number
  economicQuantity: number | null
  buy: number
  priceMinor: number | null
  because: string[]
}

export const listToBuy = endpoint<{ siteId: number }, { rows: ToBuyRow[]; weighed: number; storeId: number | null; stores: { id: number; name: string }[] }>({
  method: 'GET',
  path: '/api/stock/to-buy/:siteId',
  says: 'Parts that have fallen to their reorder point, or that orders wait for, with how many to buy and why.',
  may: 'desk.read',
  input: Joi.object<{ siteId: number }, true>({ siteId: field.id().required() }),
})

interface BuyListed {
  siteId: number
  storeId: number
  lines: { partId: number; quantity: string; vendorId: number }[]
}
export const buyListed = endpoint<BuyListed, { rows: { id: number; number: string; vendor: string; lines: number }[] }>({
  method: 'POST',
  path: '/api/stock/to-buy/:siteId',
  says: 'Make purchases of the list, one a vendor, in one act.',
  may: 'registers.edit',
  input: Joi.object<BuyListed, true>({
    siteId: field.id().required(),
    storeId: field.id().required(),
    lines: Joi.array()
      .min(1)
      .max(500)
      .unique('partId')
      .items(Joi.object({ partId: field.id().required(), quantity: field.quantity().required(), vendorId: field.id().required() }))
      .required(),
  }),
})
