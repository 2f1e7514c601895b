import { eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { command, notFound } from '#server/kit'
import { untoldEvents } from '../tables'
import { untoldRows } from './listUntold'

/** The publisher tries it once more with its next round; failing again, it is set aside again. */
export default command(contract.tellAgain, async ({ tx, who, input, now }) => {
  if (!(await untoldRows(tx, who)).some((row) => row.id === input.id)) throw notFound('event')
  await tx.update(untoldEvents).set({ setAsideAt: null, nextAt: now }).where(eq(untoldEvents.eventId, input.id))
  return { rows: await untoldRows(tx, who) }
})
