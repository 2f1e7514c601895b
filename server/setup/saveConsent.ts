import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, notFound } from '#server/kit'
import { payers } from '../tables'
import { accountsKnown, readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveConsent, async ({ tx, input, tell }) => {
  const { payerId, accountId, aboveMinor } = input
  const [payer] = await tx.select().from(payers).where(eq(payers.id, payerId)).for('update')
  if (!payer) throw notFound('payer')
  if ((accountId === null) !== (aboveMinor === null))
    refuse('half_a_consent', 'Give both: who consents, and above which amount.', accountId === null ? 'accountId' : 'aboveMinor')
  if (accountId !== null && !(await accountsKnown(tx, [accountId]))) refuse('account_unknown', 'Choose a person from the list.', 'accountId')
  await tx.update(payers).set({ consentAccountId: accountId, consentAboveMinor: aboveMinor }).where(eq(payers.id, payerId))
  await tell({
    kind: 'setup.consent',
    details: {
      payer: payer.code,
      fields: { aboveMinor: { from: payer.consentAboveMinor, to: aboveMinor }, accountId: { from: payer.consentAccountId, to: accountId } },
    },
  })
  return readRuleBookSheet(tx, input.siteId)
})
