import * as contract from '#contract/setup'
import { command, mySite } from '#server/kit'
import { makeKey } from '#server/open311'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.makeApiKey, async ({ tx, who, input, now, tell }) => {
  const site = await mySite(tx, who, input.siteId)
  const key = await makeKey(tx, who, now, site.id, input.name)
  await tell({ kind: 'setup.apiKey', siteId: site.id, details: { name: input.name } })
  return { key, setup: await readIntakeSheet(tx, who) }
})
