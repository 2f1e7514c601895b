import * as contract from '#contract/setup'
import type { SaveRules } from '#contract/setup'
import { refuse } from '#core/kit'
import { command, mustKnow, mustReach } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { idsIn, rulesOf, saveRuleSection } from '#server/orders'
import { ownFieldsOf } from '#server/own'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveRules, async ({ tx, who, input, tell }) => {
  const { siteId, section, content } = input
  await mustReach(tx, who, siteId)
  await refuseUnknown(tx, who, input)
  const before = await rulesOf(tx, siteId)
  await saveRuleSection(tx, siteId, section, input.version, content)
  await tell({ kind: 'setup.rules', siteId, details: { fields: { [section]: { from: before[section], to: content } } } })
  return readRuleBookSheet(tx, siteId)
})

/** A rule names only what is there, and asks only who can decide. */
async function refuseUnknown(tx: Tx, who: Asker, { siteId, section, content }: SaveRules): Promise<void> {
  if (section !== 'reasons' && section !== 'approvals' && section !== 'escalations') return
  const ids = idsIn({ reasons: [], approvals: [], escalations: [], [section]: content })
  const own = (await ownFieldsOf(tx, 'orders')).map(({ id }) => id)
  if (ids.own.some((id) => !own.includes(id))) refuse('own_unknown', 'Choose an own field of orders from the list. Nothing was saved.', 'content')
  const kinds = { places: 'place', payers: 'payer', accounts: section === 'approvals' ? 'approver' : 'account' } as const
  // Everything a section names stands in the one field it is sent in.
  for (const [what, kind] of Object.entries(kinds)) await mustKnow(tx, { siteId, who }, { content: [kind, ids[what as keyof typeof kinds]] })
}
