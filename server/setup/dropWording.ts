import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command } from '#server/kit'
import { mailWordings } from '../tables'
import { readIntakeSheet } from './intakeSetup'
import { mustReach } from './reach'

export default command(contract.dropWording, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId)
  await tx.delete(mailWordings).where(and(eq(mailWordings.siteId, input.siteId), eq(mailWordings.occasion, input.occasion)))
  await tell({ kind: 'setup.wording', siteId: input.siteId, details: { occasion: input.occasion, usual: true } })
  return readIntakeSheet(tx, who)
})
