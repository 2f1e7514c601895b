import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, maySee, notFound } from '#server/kit'
import { apiKeys } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.revokeApiKey, async ({ tx, who, input, now, tell }) => {
  const [key] = await tx.select().from(apiKeys).where(eq(apiKeys.id, input.id)).for('update')
  if (!key || !maySee(who, key.siteId)) throw notFound('key')
  if (!key.revokedAt) await tx.update(apiKeys).set({ revokedAt: now }).where(eq(apiKeys.id, key.id))
  await tell({ kind: 'setup.apiKey', siteId: key.siteId, details: { name: key.name, revoked: true } })
  return readIntakeSheet(tx, who)
})
