import { eq } from 'drizzle-orm'
import * as contract from '#contract/people'
import { command, notAllowed, notFound } from '#server/kit'
import { deputies } from '../tables'
import { administers } from './administers'
import { awayRows } from './listAway'

/** Ends now when it has begun, so that the record of who stood in stays; is taken out when it has not. */
export default command(contract.endAway, async ({ tx, who, input, now, tell }) => {
  const [row] = await tx.select().from(deputies).where(eq(deputies.id, input.id)).for('update')
  if (!row || row.untilAt <= now) throw notFound('period')
  if (row.forAccountId !== who.accountId && !(await administers(tx, who, row.forAccountId))) throw notAllowed()
  if (row.fromAt < now) await tx.update(deputies).set({ untilAt: now }).where(eq(deputies.id, row.id))
  else await tx.delete(deputies).where(eq(deputies.id, row.id))
  await tell({ kind: 'people.back', details: { accountId: row.forAccountId } })
  return { rows: await awayRows(tx, who, now) }
})
