import type { RecordWork } from '#contract/registers'
import { counted } from '#core/kit'

/** How much work is open on a record, as one line. */
export function workSays({ openOrders, lateOrders, openRequests }: RecordWork): string {
  if (!openOrders && !openRequests) return 'No open work.'
  const orders = openOrders ? `${counted(openOrders, 'open order')}${lateOrders ? `, ${lateOrders} past target` : ''}` : ''
  return `${[orders, openRequests ? counted(openRequests, 'open request') : ''].filter(Boolean).join('; ')}.`
}
