import * as contract from '#contract/approvals'
import { refuse } from '#core/kit'
import type { ApprovalRule } from '#core/orders'
import { command, mustKnow, mySite, openHolders } from '#server/kit'
import { handOverConsents } from '#server/ledger'
import { handOverAsks, readRuleBook, saveRuleSection } from '#server/orders'
import { readUnableSheet } from './unable'

/** What somebody can decide no more goes to somebody who can: the rules that ask them, their consents, what is open. */
export default command(contract.handOver, async ({ tx, who, input, now, tell }) => {
  const { siteId, fromId, toId } = input
  await mySite(tx, who, siteId)
  await mustKnow(tx, { siteId, who }, { toId: ['approver', toId] })
  if ((await openHolders(tx, 'orders.approve', siteId, [fromId])).length) refuse('able', 'They can decide; whoever is away names a deputy instead.', 'fromId')
  const { book, versions } = await readRuleBook(tx, siteId)
  const { approvals: rules } = book
  const changed = rules.map((rule) => ({ ...rule, asks: handed(rule.asks, fromId, toId) }))
  if (JSON.stringify(changed) !== JSON.stringify(rules)) await saveRuleSection(tx, siteId, 'approvals', versions.approvals, changed)
  // A payer is charged by every site: its consent is given away by those who administer all of them.
  if (who.siteIds === null) await handOverConsents(tx, fromId, toId)
  await handOverAsks(tx, who, now, { siteId, fromId, toId })
  await tell({ kind: 'setup.handOver', siteId, details: { from: fromId, to: toId } })
  return readUnableSheet(tx, who)
})

function handed(asks: ApprovalRule['asks'], fromId: number, toId: number): ApprovalRule['asks'] {
  const after = asks.map((one) => (one !== 'supervisor' && one.accountId === fromId ? { accountId: toId } : one))
  return after.filter((one, index) => after.findIndex((other) => JSON.stringify(other) === JSON.stringify(one)) === index)
}
