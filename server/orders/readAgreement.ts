import * as contract from '#contract/orders'
import type { Agreement, ApprovalRow } from '#contract/orders'
import type { OrderFacts } from '#core/orders'
import { query } from '#server/kit'
import type { Outgoing, Reader } from '#server/kit'
import { budgetsIn, januaryOf } from '#server/ledger'
import { asksFor } from './asks'
import { factsOf } from './facts'
import type { OrderRecord } from './orderRecord'
import { readOrderRows, sharesWithBudgetsOf } from './orderRows'
import type { OrderRows } from './orderRows'
import { seenOrder } from './seenOrder'

export default query(contract.readAgreement, async ({ db, who, input, now }) => {
  const order = await seenOrder(db, who, input.id)
  const reading = readOrderRows(db, order, now)
  const [rows, facts, whoPays] = await Promise.all([
    reading,
    factsOf(db, order, who, now, reading),
    sharesWithBudgetsOf(db, { orderId: order.id, january: januaryOf(now) }),
  ])
  return {
    agreements: await agreementsOf(db, order, facts, rows),
    approvers: approversIn(rows, order.estimateMinor ?? 0),
    budgets: budgetsIn(whoPays),
    approvals: approvalRows(rows),
  }
})

/** What was asked for when it was submitted; before that, what would be asked as it stands. */
async function agreementsOf(db: Reader, order: OrderRecord, facts: OrderFacts, rows: OrderRows): Promise<Agreement['agreements']> {
  if (order.state === 'to_approve') return facts.asks.map(({ position, who, why, decided }) => ({ position, who, why, decided }))
  if (order.state !== 'draft' || order.estimateMinor === null) return []
  const asks = await asksFor(db, facts, rows)
  return asks.map(({ position, why, accountId }) => ({ position, who: accountId ? '' : 'somebody whose limit covers it', why, decided: false }))
}

/** Those whose own limit covers the amount, the lowest sufficient limit first, with who decides for them while they are away. */
function approversIn({ approvers }: OrderRows, amount: number): Outgoing<Agreement['approvers']> {
  // Somebody with several deputies comes once, with the one who stays longest.
  const last = new Map(approvers.map((approver) => [approver.id, approver]))
  return [...last.values()]
    .filter(({ limitMinor }) => limitMinor !== null && limitMinor >= amount)
    .map(({ name, limitMinor, awayUntil, deputy }) => ({ name, limitMinor: limitMinor!, awayUntil, deputy }))
}

/** Newest first. */
function approvalRows({ approvals }: OrderRows): Outgoing<ApprovalRow>[] {
  return [...approvals]
    .sort((a, b) => b.approval.id - a.approval.id)
    .map(({ approval, askedBy, decidedBy, actingFor }) => ({
      id: approval.id,
      amountMinor: approval.amountMinor,
      askedAt: approval.askedAt,
      askedBy,
      decidedAt: approval.decidedAt,
      decidedBy,
      actingFor,
      verdict: approval.verdict,
      note: approval.note,
    }))
}
