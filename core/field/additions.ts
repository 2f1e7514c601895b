import { refuse } from '#core/kit'
import type { OrderState } from '#core/orders'

/** @throws Refusal for notes and photos of an order that is over: what was charged for stays as it was told */
export function refuseAdditions(state: OrderState): void {
  if (state === 'closed') refuse('order_over', 'The order is closed and charged; nothing is added to it any more. Call the desk.')
  if (state === 'cancelled') refuse('order_over', 'The order was called off; nothing is added to it any more. Call the desk.')
}
