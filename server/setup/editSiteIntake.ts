import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, maySee, notFound } from '#server/kit'
import { setCounterFields } from '#server/places'
import { sites } from '../tables'
import { readIntakeSheet } from './intakeSetup'

export default command(contract.editSiteIntake, async ({ tx, who, input, tell }) => {
  const [before] = await tx.select().from(sites).where(eq(sites.id, input.id))
  if (!before || !maySee(who, before.id)) throw notFound('site')
  await setCounterFields(tx, [input.id], input.fields)
  await tell({ kind: 'setup.intake', siteId: input.id, details: { from: before.counterFields, to: input.fields } })
  return readIntakeSheet(tx, who)
})
