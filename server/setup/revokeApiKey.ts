import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, notFound } from '#server/kit'
import { apiKeys } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.revokeApiKey, async ({ tx, input, now, tell }) => {
  const [key] = await tx.select().from(apiKeys).where(eq(apiKeys.id, input.id)).for('update')
  if (!key) throw notFound('key')
  if (!key.revokedAt) await tx.update(apiKeys).set({ revokedAt: now }).where(eq(apiKeys.id, key.id))
  await tell({ kind: 'setup.apiKey', siteId: key.siteId, details: { name: key.name, revoked: true } })
  return readIntakeSheet(tx)
})
