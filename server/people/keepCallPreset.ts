import { eq } from 'drizzle-orm'
import * as contract from '#contract/people'
import { command } from '#server/kit'
import { accounts } from '../tables'
import { selfOf } from './self'

export default command(contract.keepCallPreset, async ({ tx, who, input, now }) => {
  await tx
    .update(accounts)
    .set({ callPreset: { ...input } })
    .where(eq(accounts.id, who.accountId!))
  return selfOf(tx, who, now)
})
