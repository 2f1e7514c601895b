import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { meets, MOVES_WITH_REASON, neededReason, ORDER_MOVES, reasonRuleSentence } from '#core/orders'
import { mustReach, nobody, query } from '#server/kit'
import { factsOf, idsIn, namesFor } from '#server/orders'
import { orders } from '../tables'

/** A read: the order is looked at under rules that are not in force. */
export default query(contract.tryReasonRules, async ({ db, who, input, now }) => {
  await mustReach(db, who, input.siteId)
  const [order] = await db
    .select()
    .from(orders)
    .where(and(eq(orders.siteId, input.siteId), eq(orders.number, input.number.toUpperCase())))
  if (!order) refuse('order_unknown', `There is no order ${input.number} at this site.`, 'number')
  const found = await factsOf(db, order, nobody, now)
  const facts = { ...found, rules: { ...found.rules, reasons: input.rules } }
  const names = await namesFor(db, idsIn({ reasons: input.rules, approvals: [], escalations: [] }))
  return {
    order: { id: order.id, number: order.number, summary: order.summary, state: order.state },
    moves: MOVES_WITH_REASON.filter((move) => ORDER_MOVES[move].from.includes(order.state)).map((move) => ({
      move,
      label: ORDER_MOVES[move].label,
      ...neededReason(facts, move),
      because: input.rules.filter((rule) => rule.move === move && meets(rule.when, facts)).map((rule) => reasonRuleSentence(rule, names)),
    })),
  }
})
