import * as contract from '#contract/setup'
import { Refusal } from '#core/kit'
import { wordingReasons } from '#core/requests'
import { command, mySite } from '#server/kit'
import { setWording } from '#server/mail'
import { ownFieldsOf } from '#server/own'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.saveWording, async ({ tx, who, input, tell }) => {
  const reasons = wordingReasons(
    input,
    (await ownFieldsOf(tx, 'requests')).map((field) => field.label),
  )
  if (reasons.length) throw new Refusal(reasons)
  await mySite(tx, who, input.siteId)
  await setWording(tx, input.siteId, input.occasion, input)
  await tell({ kind: 'setup.wording', siteId: input.siteId, details: { occasion: input.occasion } })
  return readIntakeSheet(tx, who)
})
