import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant, Page } from '#contract/kit'
import { PURCHASE_STATES } from '#core/stock'
import type { PurchaseState } from '#core/stock'

export interface PurchaseLine {
  id: number
  partId: number
  code: string
  name: string
  unit: string
  /** Decimals with at most three places. */
  quantity: string
  received: string
  /** Of one, in minor units; null while nobody knows. */
  priceMinor: number | null
  /** What was paid for one last at the site. */
  lastPriceMinor: number | null
  order: { id: number; number: string } | null
}

export interface PurchaseRow {
  id: number
  number: string
  state: PurchaseState
  siteId: number
  vendor: string | null
  store: string
  /** What it comes to at the prices known, in minor units. */
  totalMinor: number
  lines: number
  askedAt: Instant
  orderedAt: Instant | null
  expectedOn: string | null
  billed: boolean
}

export interface Purchase extends Omit<PurchaseRow, 'lines'> {
  version: number
  vendorId: number | null
  storeId: number
  note: string | null
  askedBy: string
  orderedBy: string | null
  currency: string
  bill: { number: string; on: string; amountMinor: number; difference: string | null } | null
  lines: PurchaseLine[]
  /** What came of it, the newest first. */
  receipts: { lineId: number; quantity: string; priceMinor: number; at: Instant; by: string }[]
  mayEdit: boolean
  mayBill: boolean
}

interface PurchasesAsked {
  state?: PurchaseState
  /** Received and not billed, or billed. */
  billed?: boolean
  q?: string
  after?: string
  limit?: number
}

export const listPurchases = endpoint<PurchasesAsked, Page<PurchaseRow>>({
  method: 'GET',
  path: '/api/purchases',
  says: 'Purchases of parts, the newest first.',
  may: 'desk.read',
  input: Joi.object<PurchasesAsked, true>({
    state: field.oneOf(PURCHASE_STATES),
    billed: Joi.boolean(),
    q: field.search(),
    after: Joi.string().max(200),
    limit: field.limit(),
  }),
})

const byId = { id: field.id().required() }
export const readPurchase = endpoint<{ id: number }, Purchase>({
  method: 'GET',
  path: '/api/purchases/:id',
  says: 'One purchase, with what was received and billed of it.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})

export const readPurchasePdf = endpoint<{ id: number }, Blob>({
  method: 'GET',
  path: '/api/purchases/:id/pdf',
  says: 'The purchase order as the vendor is sent it (PDF).',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<{ id: number }, true>(byId),
})

/** What is asked for of one part. */
export interface LineEntry {
  partId: number
  quantity: string
  priceMinor?: number | null
  orderId?: number | null
}
const MOST_LINES = 100
const lines = Joi.array()
  .max(MOST_LINES)
  .items(
    Joi.object<LineEntry, true>({
      partId: field.id().required(),
      quantity: field.quantity().required(),
      priceMinor: field.minor().allow(null),
      orderId: field.id().allow(null),
    }),
  )

interface PurchaseEntry {
  storeId: number
  vendorId?: number | null
  note?: string | null
  lines: LineEntry[]
}
const entry = {
  vendorId: field.id().allow(null),
  note: field.words(1000).allow('', null),
}

export const askPurchase = endpoint<PurchaseEntry, Purchase>({
  method: 'POST',
  path: '/api/purchases',
  says: 'Ask for parts to be bought. Nothing is ordered by that.',
  may: 'orders.edit',
  input: Joi.object<PurchaseEntry, true>({ ...entry, storeId: field.id().required(), lines: lines.min(1).required() }),
})

interface AskForOrder {
  orderId: number
  partId: number
  quantity: string
}
export const askForOrder = endpoint<AskForOrder, { id: number; number: string }>({
  method: 'POST',
  path: '/api/orders/:orderId/parts/buy',
  says: 'Ask for a part to be bought for an order: it goes to what is asked for already of its usual vendor.',
  may: 'orders.edit',
  input: Joi.object<AskForOrder, true>({ orderId: field.id().required(), partId: field.id().required(), quantity: field.quantity().required() }),
})

interface PurchaseEdit extends Partial<Omit<PurchaseEntry, 'lines'>> {
  id: number
  version: number
  expectedOn?: string | null
  lines?: LineEntry[]
}
const byVersion = { id: field.id().required(), version: field.version().required() }
export const editPurchase = endpoint<PurchaseEdit, Purchase>({
  method: 'PATCH',
  path: '/api/purchases/:id',
  says: 'Change what is asked for. Once ordered, only when it is expected and the note change.',
  may: 'registers.edit',
  input: Joi.object<PurchaseEdit, true>({ ...byVersion, ...entry, storeId: field.id(), expectedOn: field.day().allow(null, ''), lines }),
})

export const orderPurchase = endpoint<{ id: number; version: number; expectedOn?: string }, Purchase>({
  method: 'POST',
  path: '/api/purchases/:id/order',
  says: 'Order it: the vendor is sent the purchase order by mail.',
  may: 'registers.edit',
  input: Joi.object<{ id: number; version: number; expectedOn?: string }, true>({ ...byVersion, expectedOn: field.day().allow('') }),
})

interface Receipt {
  id: number
  version: number
  lines: { lineId: number; quantity: string; priceMinor: number }[]
  note?: string
}
export const receivePurchase = endpoint<Receipt, Purchase>({
  method: 'POST',
  path: '/api/purchases/:id/receive',
  says: 'Take in what came, whole or in part, at its price. Orders that wait for it go on.',
  may: 'registers.edit',
  input: Joi.object<Receipt, true>({
    ...byVersion,
    lines: Joi.array()
      .min(1)
      .max(MOST_LINES)
      .unique('lineId')
      .items(Joi.object({ lineId: field.id().required(), quantity: field.quantity().required(), priceMinor: field.minor().required() }))
      .required(),
    note: field.line(200).allow(''),
  }),
})

export const cancelPurchase = endpoint<{ id: number; version: number; reason: string }, Purchase>({
  method: 'POST',
  path: '/api/purchases/:id/cancel',
  says: 'Call off what has not come; what was received stays.',
  may: 'registers.edit',
  input: Joi.object<{ id: number; version: number; reason: string }, true>({ ...byVersion, reason: field.line(200).required() }),
})

interface PurchaseBill {
  id: number
  version: number
  number: string
  on: string
  amountMinor: number
}
export const billPurchase = endpoint<PurchaseBill, Purchase>({
  method: 'POST',
  path: '/api/purchases/:id/bill',
  says: 'Enter the vendor’s bill for what was received, net of tax.',
  may: 'ledger.post',
  input: Joi.object<PurchaseBill, true>({
    ...byVersion,
    number: field.line(40).required(),
    on: field.day().required(),
    amountMinor: field.minor().required(),
  }),
})
