import * as contract from '#contract/setup'
import { command, mustReach } from '#server/kit'
import { dropOwnWording } from '#server/mail'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.dropWording, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  await dropOwnWording(tx, input.siteId, input.occasion)
  await tell({ kind: 'setup.wording', siteId: input.siteId, details: { occasion: input.occasion, usual: true } })
  return readIntakeSheet(tx, who)
})
