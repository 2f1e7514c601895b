import { and, eq, inArray } from 'drizzle-orm'
import type { Grant } from '#core/people'
import type { Tx } from '#server/kit'
import { accountRoles, accounts, sessions } from '../tables'

type Account = typeof accounts.$inferSelect
type GrantRecord = typeof accountRoles.$inferSelect

/** What an administrator sets of an account; a team left out stays as it is. */
export interface AccountChange {
  approvalLimitMinor: number | null
  disabled: boolean
  teamId?: number | null
}

/** Changes an account, which counts its version on. Whoever may not sign in any more is signed out. */
export async function keepAccount(tx: Tx, account: Account, { approvalLimitMinor, disabled, teamId }: AccountChange, now: Date): Promise<void> {
  await tx
    .update(accounts)
    .set({
      approvalLimitMinor,
      disabledAt: disabled ? (account.disabledAt ?? now) : null,
      ...(teamId === undefined ? {} : { teamId }),
      version: account.version + 1,
    })
    .where(eq(accounts.id, account.id))
  if (disabled) await tx.delete(sessions).where(eq(sessions.accountId, account.id))
}

/** A unique index does not hold for “every site”, which is null: what is there already is not written again. */
export async function keepGrants(tx: Tx, accountId: number, before: GrantRecord[], after: readonly Grant[]): Promise<void> {
  const same = (a: Grant, b: Grant) => a.role === b.role && a.siteId === b.siteId
  const gone = before.filter((row) => !after.some((grant) => same(row, grant))).map((row) => row.id)
  const added = after.filter((grant, index) => !before.some((row) => same(row, grant)) && after.findIndex((one) => same(one, grant)) === index)
  if (gone.length) await tx.delete(accountRoles).where(and(eq(accountRoles.accountId, accountId), inArray(accountRoles.id, gone)))
  if (added.length) await tx.insert(accountRoles).values(added.map((grant) => ({ accountId, ...grant })))
}
