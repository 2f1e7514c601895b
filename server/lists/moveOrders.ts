import { and, inArray } from 'drizzle-orm'
import type { Done } from '#contract/kit'
import * as contract from '#contract/lists'
import { BULK_ORDER_RULES } from '#core/lists'
import type { BulkOrderMove } from '#core/lists'
import { acting, can, command, notAllowed, recordEvent, withinSites } from '#server/kit'
import { archive, makerOf, restore } from '#server/orders'
import type { Maker } from '#server/orders'
import { orders } from '../tables'
import { moveSeveral } from './moveSeveral'

const maker = (move: BulkOrderMove): Maker => (move === 'archive' ? archive : move === 'restore' ? restore : makerOf(move))

export default command(contract.moveOrders, async (context) => {
  const { tx, input, now } = context
  const { move, items, reason, holdReason } = input
  const permission = BULK_ORDER_RULES[move].may
  if (!can(context.who, permission)) throw notAllowed()
  // Many are moved by the right to move one, at the sites where it is held.
  const who = acting(context.who, permission)
  const known = await tx
    .select({ id: orders.id, number: orders.number, state: orders.state, version: orders.version })
    .from(orders)
    .where(
      and(
        inArray(
          orders.id,
          items.map((item) => item.id),
        ),
        withinSites(who, orders.siteId),
      ),
    )
  const make = maker(move)
  const rows = await moveSeveral(
    tx,
    items,
    known,
    (inner, item) =>
      make({
        ...context,
        who,
        tx: inner,
        input: { ...item, reason, ...(move === 'hold' ? { holdReason } : {}) },
        tell: (happening) => recordEvent(inner, who, now, happening),
      }) as Promise<Done>,
  )
  return { rows }
})
