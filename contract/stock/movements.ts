import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { STOCK_ACTS } from '#core/stock'
import type { PurchaseState, StockAct } from '#core/stock'

/** How much of a part lies in a store, and how much of it is kept for orders that are not over. */
export interface StockLevel {
  storeId: number
  store: string
  partId: number
  part: string
  unit: string
  /** Decimals with at most three places. */
  onHand: string
  reserved: string
  free: string
  /** Ordered at a vendor and not there yet. */
  onOrder: string
  averageCostMinor: number
}

/** A count may find nothing, and a reservation may be let go. */
const orNought = () => Joi.alternatives(Joi.string().valid('0'), field.quantity()).required()

interface MoveStock {
  act: StockAct
  storeId: number
  partId: number
  /** How much; for a count, how much was found, which may be nought. */
  quantity: string
  /** Of what came in: its price for one, in minor units. */
  unitCostMinor?: number
  /** The order it goes to or comes back from, by its number. */
  orderNumber?: string
  toStoreId?: number
  /** Why a count differs, or whatever is worth knowing. */
  reason?: string
}

export const moveStock = endpoint<MoveStock, { level: StockLevel }>({
  method: 'POST',
  path: '/api/stock/movements',
  says: 'Receive a part at a price, issue it to an order, take it back, move it to another store, or enter what was counted.',
  may: 'registers.edit',
  input: Joi.object<MoveStock, true>({
    act: field.oneOf(STOCK_ACTS).required(),
    storeId: field.id().required(),
    partId: field.id().required(),
    quantity: Joi.when('act', {
      is: 'count',
      then: orNought(),
      otherwise: field.quantity().required(),
    }) as unknown as Joi.StringSchema,
    unitCostMinor: field.minor(),
    orderNumber: field.line(32),
    toStoreId: field.id(),
    reason: field.line(200).allow(''),
  }),
})

/** A part of an order: planned, kept, taken, and where more of it lies. */
export interface OrderPart {
  partId: number
  code: string
  name: string
  unit: string
  planned: string
  reserved: string
  /** Taken and not brought back. */
  issued: string
  stores: { storeId: number; store: string; onHand: string; free: string; reserved: string }[]
  /** What is asked for or ordered at the site and has not come. */
  coming: { purchaseId: number; number: string; state: PurchaseState; quantity: string; expectedOn: string | null; forThis: boolean }[]
}

export const readOrderParts = endpoint<{ orderId: number }, { rows: OrderPart[]; mayReserve: boolean; mayMove: boolean; mayWait: boolean }>({
  method: 'GET',
  path: '/api/orders/:orderId/parts',
  says: 'The parts of an order: what is planned, what is kept for it, what it took, and what lies in the stores of its site.',
  may: 'desk.read',
  input: Joi.object<{ orderId: number }, true>({ orderId: field.id().required() }),
})

interface ReservePart {
  orderId: number
  partId: number
  storeId: number
  /** How much is kept in all; nought lets it go. */
  quantity: string
}

export const reservePart = endpoint<ReservePart, { orderId: number }>({
  method: 'POST',
  path: '/api/orders/:orderId/parts',
  says: 'Keep parts in a store for an order, or let them go with a quantity of nought. What is kept for others cannot be kept twice.',
  may: 'orders.edit',
  input: Joi.object<ReservePart, true>({
    orderId: field.id().required(),
    partId: field.id().required(),
    storeId: field.id().required(),
    quantity: orNought() as unknown as Joi.StringSchema,
  }),
})
