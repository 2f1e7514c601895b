import * as contract from '#contract/setup'
import { command, mySite, randomToken, sha256 } from '#server/kit'
import { apiKeys } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.makeApiKey, async ({ tx, who, input, now, tell }) => {
  const site = await mySite(tx, who, input.siteId)
  const key = randomToken()
  await tx.insert(apiKeys).values({ siteId: site.id, name: input.name, keyHash: sha256(key), createdAt: now, createdBy: who.accountId })
  await tell({ kind: 'setup.apiKey', siteId: site.id, details: { name: input.name } })
  return { key, setup: await readIntakeSheet(tx, who) }
})
