import { eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { command, maySee, notFound } from '#server/kit'
import { targetRules } from '../tables'
import { setPromise } from './promises'
import { readPromisesSheet } from './promisesSheet'

export default command(contract.editTarget, async ({ tx, who, input, tell }) => {
  const { id, ...rule } = input
  const [before] = await tx.select().from(targetRules).where(eq(targetRules.id, id)).for('update')
  if (!before || !maySee(who, before.siteId)) throw notFound('target')
  await setPromise(tx, id, rule)
  await tell({ kind: 'setup.target', siteId: before.siteId, details: { fields: { rule: { from: before, to: rule } } } })
  return readPromisesSheet(tx, who)
})
