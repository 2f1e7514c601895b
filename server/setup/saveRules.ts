import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import type { SaveRules } from '#contract/setup'
import { DEFAULT_RULES } from '#core/orders'
import { command, mustKnow } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { idsIn } from '#server/orders'
import { ruleBooks } from '../tables'
import { lockRuleBook } from './lockRuleBook'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveRules, async ({ tx, who, input, tell }) => {
  const { siteId, section, content } = input
  const { content: before } = await lockRuleBook(tx, who, siteId, input.version)
  await refuseUnknown(tx, who, input)
  await tx
    .update(ruleBooks)
    .set({ content: { ...before, [section]: content } })
    .where(eq(ruleBooks.siteId, siteId))
  await tell({ kind: 'setup.rules', siteId, details: { fields: { [section]: { from: before[section] ?? DEFAULT_RULES[section], to: content } } } })
  return readRuleBookSheet(tx, siteId)
})

/** A rule names only what is there, and asks only who can decide. */
async function refuseUnknown(tx: Tx, who: Asker, { siteId, section, content }: SaveRules): Promise<void> {
  if (section !== 'reasons' && section !== 'approvals' && section !== 'escalations') return
  const ids = idsIn({ reasons: [], approvals: [], escalations: [], [section]: content })
  const kinds = { places: 'place', payers: 'payer', accounts: section === 'approvals' ? 'approver' : 'account' } as const
  // Everything a section names stands in the one field it is sent in.
  for (const [what, kind] of Object.entries(kinds)) await mustKnow(tx, { siteId, who }, { content: [kind, ids[what as keyof typeof kinds]] })
}
