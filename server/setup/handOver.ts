import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import type { ApprovalRule } from '#core/orders'
import { command, mustKnow, mySite, openHolders } from '#server/kit'
import { handOverAsks, rulesOf } from '#server/orders'
import { payers, ruleBooks } from '../tables'
import { readSetupSheet } from './setupSheet'
import { lockRuleBook } from './lockRuleBook'

/** What somebody can decide no more goes to somebody who can: the rules that ask them, their consents, what is open. */
export default command(contract.handOver, async ({ tx, who, input, now, tell }) => {
  const { siteId, fromId, toId } = input
  await mySite(tx, who, siteId)
  await mustKnow(tx, { siteId, who }, { toId: ['approver', toId] })
  if ((await openHolders(tx, 'orders.approve', siteId, [fromId])).length) refuse('able', 'They can decide; whoever is away names a deputy instead.', 'fromId')
  const { approvals: rules } = await rulesOf(tx, siteId)
  const changed = rules.map((rule) => ({ ...rule, asks: handed(rule.asks, fromId, toId) }))
  if (JSON.stringify(changed) !== JSON.stringify(rules)) {
    const [book] = await tx.select({ version: ruleBooks.version }).from(ruleBooks).where(eq(ruleBooks.siteId, siteId))
    const { content } = await lockRuleBook(tx, who, siteId, book?.version ?? 0)
    await tx
      .update(ruleBooks)
      .set({ content: { ...content, approvals: changed } })
      .where(eq(ruleBooks.siteId, siteId))
  }
  // A payer is charged by every site: its consent is given away by those who administer all of them.
  if (who.siteIds === null) await tx.update(payers).set({ consentAccountId: toId }).where(eq(payers.consentAccountId, fromId))
  await handOverAsks(tx, who, now, { siteId, fromId, toId })
  await tell({ kind: 'setup.handOver', siteId, details: { from: fromId, to: toId } })
  return readSetupSheet(tx, who)
})

function handed(asks: ApprovalRule['asks'], fromId: number, toId: number): ApprovalRule['asks'] {
  const after = asks.map((one) => (one !== 'supervisor' && one.accountId === fromId ? { accountId: toId } : one))
  return after.filter((one, index) => after.findIndex((other) => JSON.stringify(other) === JSON.stringify(one)) === index)
}
