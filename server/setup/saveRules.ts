import { eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/setup'
import type { SaveRules } from '#contract/setup'
import { refuse } from '#core/kit'
import { DEFAULT_RULES } from '#core/orders'
import { command } from '#server/kit'
import type { Tx } from '#server/kit'
import { idsIn } from '#server/orders'
import { payers, places, ruleBooks } from '../tables'
import { lockRuleBook } from './lockRuleBook'
import { accountsKnown, readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveRules, async ({ tx, input, tell }) => {
  const { siteId, section, content } = input
  const { content: before } = await lockRuleBook(tx, siteId, input.version)
  await refuseUnknown(tx, input)
  await tx
    .update(ruleBooks)
    .set({ content: { ...before, [section]: content } })
    .where(eq(ruleBooks.siteId, siteId))
  await tell({ kind: 'setup.rules', siteId, details: { fields: { [section]: { from: before[section] ?? DEFAULT_RULES[section], to: content } } } })
  return readRuleBookSheet(tx, siteId)
})

/** A rule names only what is there: places of this site, payers and people. */
async function refuseUnknown(tx: Tx, { siteId, section, content }: SaveRules): Promise<void> {
  if (section !== 'reasons' && section !== 'approvals' && section !== 'escalations') return
  const ids = idsIn({ reasons: [], approvals: [], escalations: [], [section]: content })
  const placeIds = [...new Set(ids.places)]
  const payerIds = [...new Set(ids.payers)]
  const placeRows = placeIds.length ? await tx.select({ siteId: places.siteId }).from(places).where(inArray(places.id, placeIds)) : []
  if (placeRows.length !== placeIds.length || placeRows.some((row) => row.siteId !== siteId))
    refuse('place_unknown', 'Choose places of this site from the list.', 'content')
  const payerRows = payerIds.length ? await tx.select({ id: payers.id }).from(payers).where(inArray(payers.id, payerIds)) : []
  if (payerRows.length !== payerIds.length) refuse('payer_unknown', 'Choose payers from the list.', 'content')
  if (!(await accountsKnown(tx, ids.accounts))) refuse('account_unknown', 'Choose people from the list.', 'content')
}
