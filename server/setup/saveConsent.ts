import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, mustKnow, mustReachAll, notFound } from '#server/kit'
import { setConsent } from '#server/ledger'
import { payers } from '../tables'
import { readRuleBookSheet } from './ruleBookSheet'

export default command(contract.saveConsent, async ({ tx, who, input, tell }) => {
  const { payerId, accountId, aboveMinor } = input
  mustReachAll(who)
  const [payer] = await tx.select().from(payers).where(eq(payers.id, payerId)).for('update')
  if (!payer) throw notFound('payer')
  if ((accountId === null) !== (aboveMinor === null))
    refuse('half_a_consent', 'Give both: who consents, and above which amount.', accountId === null ? 'accountId' : 'aboveMinor')
  await mustKnow(tx, { siteId: input.siteId, who }, { accountId: ['approver', accountId] })
  await setConsent(tx, payerId, accountId, aboveMinor)
  await tell({
    kind: 'setup.consent',
    details: {
      payer: payer.code,
      fields: { aboveMinor: { from: payer.consentAboveMinor, to: aboveMinor }, accountId: { from: payer.consentAccountId, to: accountId } },
    },
  })
  return readRuleBookSheet(tx, input.siteId)
})
