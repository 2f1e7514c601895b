import * as contract from '#contract/setup'
import { command } from '#server/kit'
import { revokeKey } from '#server/open311'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.revokeApiKey, async ({ tx, who, input, now, tell }) => {
  const key = await revokeKey(tx, who, now, input.id)
  await tell({ kind: 'setup.apiKey', siteId: key.siteId, details: { name: key.name, revoked: true } })
  return readIntakeSheet(tx, who)
})
