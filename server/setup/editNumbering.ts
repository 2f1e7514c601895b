import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, notFound } from '#server/kit'
import { numberings } from '../tables'
import { readSetupSheet } from './setupSheet'
import { mustReach } from './reach'

export default command(contract.editNumbering, async ({ tx, who, input, tell }) => {
  await mustReach(tx, who, input.siteId, 'numbering')
  const mine = and(eq(numberings.siteId, input.siteId), eq(numberings.series, input.series))
  const [before] = await tx.select().from(numberings).where(mine).for('update')
  if (!before) throw notFound('numbering')
  if (input.next < before.next) refuse('number_used', `Numbers below ${before.next} are used already.`, 'next')
  await tx.update(numberings).set({ next: input.next }).where(mine)
  await tell({ kind: 'setup.numbering', siteId: input.siteId, details: { fields: { next: { from: before.next, to: input.next } } } })
  return readSetupSheet(tx, who)
})
