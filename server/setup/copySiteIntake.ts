import { eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { counterFieldsOf } from '#core/requests'
import { command, maySee } from '#server/kit'
import { setCounterFields } from '#server/places'
import { sites } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.copySiteIntake, async ({ tx, who, input, tell }) => {
  const [from] = await tx.select().from(sites).where(eq(sites.id, input.fromId))
  const to = await tx.select().from(sites).where(inArray(sites.id, input.toIds)).for('update')
  if (!from || !maySee(who, from.id)) refuse('site_unknown', 'Choose one of your sites.', 'fromId')
  if (to.length !== input.toIds.length || to.some((site) => !maySee(who, site.id))) refuse('site_unknown', 'Choose sites from the list.', 'toIds')
  if (input.toIds.includes(from.id)) refuse('same_site', 'Choose other sites to copy to.', 'toIds')
  const fields = counterFieldsOf(from.counterFields)
  await setCounterFields(tx, input.toIds, fields)
  for (const site of to) await tell({ kind: 'setup.intake', siteId: site.id, details: { copiedFrom: from.code, from: site.counterFields, to: fields } })
  return readIntakeSheet(tx, who)
})
