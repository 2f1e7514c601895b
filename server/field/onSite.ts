import type { Actor, Tell, Tx } from '#server/kit'
import type { VisitRecord } from '#server/dispatch/records'
import type { OrderRecord } from '#server/orders'

/** Whoever is on a job, with an account or by a pass: their visit, its order locked, when it happens, and who is told to have done it. */
export interface OnSite {
  tx: Tx
  visit: VisitRecord
  order: OrderRecord
  /** When it happened, which may be long before now where there was no signal. */
  at: Date
  actor: Actor
  tell: Tell
}
