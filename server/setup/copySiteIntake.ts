import { eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { counterFieldsOf } from '#core/requests'
import { command, notFound } from '#server/kit'
import { sites } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.copySiteIntake, async ({ tx, input, tell }) => {
  const [from] = await tx.select().from(sites).where(eq(sites.id, input.fromId))
  const to = await tx.select().from(sites).where(inArray(sites.id, input.toIds)).for('update')
  if (!from || to.length !== input.toIds.length) throw notFound('site')
  if (input.toIds.includes(from.id)) refuse('same_site', 'Choose other sites to copy to.', 'toIds')
  const fields = counterFieldsOf(from.counterFields)
  await tx.update(sites).set({ counterFields: fields, sharedMessages: from.sharedMessages }).where(inArray(sites.id, input.toIds))
  for (const site of to) await tell({ kind: 'setup.intake', siteId: site.id, details: { copiedFrom: from.code, from: site.counterFields, to: fields } })
  return readIntakeSheet(tx)
})
