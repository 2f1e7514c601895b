import { eq } from 'drizzle-orm'
import * as contract from '#contract/approvals'
import { refuse } from '#core/kit'
import { moveOrder } from '#core/orders'
import { command, recordEvent } from '#server/kit'
import { approveAsks, factsOf, lockOrder, saveMove, sendBackAsks } from '#server/orders'
import { approvalLinks } from '../tables'
import { openLink, pageOf, whyOver } from './openLink'

/** The same moves as at the Desk, under the same rules, by the person the link names. */
export default command(contract.decideApprovalByLink, async ({ tx, input, now }) => {
  const found = await openLink(tx, input.token, now)
  const { who, link } = found
  const order = await lockOrder(tx, who, found.order.id, input.version)
  const again = await openLink(tx, input.token, now)
  const over = await whyOver(tx, again)
  if (over) refuse('over', over)
  const note = input.note?.trim() || null
  if (input.verdict === 'ask') {
    if (!note) refuse('question_missing', 'Write what you would like to know.', 'note')
    await recordEvent(tx, who, now, { kind: 'order.question', siteId: order.siteId, orderId: order.id, reason: note, details: { by: 'mail' } })
    return pageOf(tx, again, now)
  }
  const move = input.verdict === 'approve' ? 'approve' : 'sendBack'
  const facts = await factsOf(tx, order, who, now)
  const to = moveOrder(facts, move, note)
  const lender = move === 'approve' ? await approveAsks(tx, who, now, order, facts, note) : await sendBackAsks(tx, who, now, order.id, note)
  await saveMove(tx, who, now, order, move, to, note, {}, { by: 'mail', ...(lender ? { actingFor: lender } : {}) })
  await tx.update(approvalLinks).set({ usedAt: now }).where(eq(approvalLinks.id, link.id))
  return pageOf(tx, await openLink(tx, input.token, now), now)
})
