import { eq } from 'drizzle-orm'
import type { Done, Endpoint } from '#contract/kit'
import { isOver, moveOrder, ORDER_MOVES } from '#core/orders'
import type { OrderFacts, OrderMove, OrderState } from '#core/orders'
import { endClosures } from '#server/closures/records'
import { command, recordEvent } from '#server/kit'
import type { Actor, CommandContext, Outgoing, Route, Tx } from '#server/kit'
import type { EventFacts } from '#core/events'
import { orders } from '../tables'
import { factsOf } from './facts'
import type { OrderRecord } from './orderRecord'
import { lockOrder } from './lockOrder'
import { ownStateFor } from './ownStates'

interface MoveInput {
  id: number
  version: number
  reason?: string
  ownStateId?: number
}

export interface Moving<Input> extends CommandContext<Input> {
  order: OrderRecord
  facts: OrderFacts
  to: OrderState
  /** What the event tells besides. */
  details: Record<string, unknown>
}

/** What else changes with a move: columns of the order. Rows elsewhere are the callback's own. */
type Also<Input> = (moving: Moving<Input>) => Promise<Partial<typeof orders.$inferInsert>>

/** A command that makes one move of the lifecycle table. */
export function orderMove<Input extends MoveInput>(endpoint: Endpoint<Input, Done>, move: OrderMove, also?: Also<Input>): Route {
  const make = async (context: CommandContext<Input>): Promise<Outgoing<Done>> => {
    const { tx, who, input, now } = context
    const order = await lockOrder(tx, who, input.id, input.version)
    const facts = await factsOf(tx, order, who, now)
    const to = moveOrder(facts, move, input.reason ?? null)
    const details: Record<string, unknown> = {}
    const own = await ownStateFor(tx, order.siteId, to, input.ownStateId)
    if (own) details.ownState = own.name
    const more = also ? await also({ ...context, order, facts, to, details }) : {}
    return await saveMove(tx, who, now, order, move, to, input.reason ?? null, own ? { ...more, ownStateId: own.id } : more, details)
  }
  makers.set(move, make as Maker)
  return command(endpoint, make)
}

export type Maker = (context: CommandContext<MoveInput>) => Promise<Outgoing<Done>>
/** What makes each move, by its name: for what makes many at once. */
const makers = new Map<OrderMove, Maker>()

/** @throws Error for a move that is not made by a command of its own */
export function makerOf(move: OrderMove): Maker {
  const maker = makers.get(move)
  if (!maker) throw new Error(`No command makes “${move}”.`)
  return maker
}

/** Writes the new state and the event that tells of it. */
export async function saveMove(
  tx: Tx,
  who: Actor,
  now: Date,
  order: OrderRecord,
  move: OrderMove,
  to: OrderState,
  reason: string | null,
  more: Partial<typeof orders.$inferInsert> = {},
  details?: EventFacts<`order.${OrderMove}`>,
): Promise<Done> {
  const version = order.version + 1
  await tx
    .update(orders)
    .set({ ownStateId: null, ...more, state: to, version })
    .where(eq(orders.id, order.id))
  // What was taken out of use for the work is given back with it.
  if (isOver(to) || more.discardedAt) await endClosures(tx, who, order, now)
  const label = ORDER_MOVES[move].label
  await recordEvent(tx, who, now, {
    kind: `order.${move}`,
    siteId: order.siteId,
    orderId: order.id,
    from: order.state,
    to,
    reason: reason?.trim() || null,
    details: { label, ...details },
  })
  return { id: order.id, version, state: to }
}
