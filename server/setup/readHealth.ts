import * as contract from '#contract/setup'
import { migrationState, query } from '#server/kit'

export default query(contract.readHealth, async ({ service, response }) => {
  const migrations = await migrationState(service.pool, service.config.migrationsDir).catch(() => null)
  const inOrder = migrations !== null && migrations.applied === migrations.expected
  if (!inOrder) response.status(503).setHeader('Retry-After', '5')
  return {
    state: inOrder ? ('in order' as const) : ('not in order' as const),
    database: migrations !== null,
    migrations: migrations ?? { applied: 0, expected: 0 },
  }
})
