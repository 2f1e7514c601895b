import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { command, conflict, notFound } from '#server/kit'
import { accountRoles, accounts, sessions, teams } from '../tables'
import { readSetupSheet } from './setupSheet'

export default command(contract.editAccount, async ({ tx, who, input, now, tell }) => {
  const [account] = await tx.select().from(accounts).where(eq(accounts.id, input.id)).for('update')
  if (!account) throw notFound('account')
  const before = await tx.select().from(accountRoles).where(eq(accountRoles.accountId, account.id))
  if (account.version !== input.version)
    throw conflict(account.version, [
      { field: 'approvalLimitMinor', theirs: account.approvalLimitMinor, yours: input.approvalLimitMinor },
      { field: 'roles', theirs: before.map((row) => row.role), yours: input.roles },
    ])
  if (account.id === who.accountId && (input.disabled || !input.roles.includes('administrator')))
    refuse('own_account', 'You cannot take your own access away; another administrator can.', 'roles')
  if (input.teamId && !(await tx.select({ id: teams.id }).from(teams).where(eq(teams.id, input.teamId))).length)
    refuse('team_unknown', 'Choose a team from the list.', 'teamId')
  const gone = before.filter((row) => !input.roles.includes(row.role))
  const siteIds = [...new Set(before.map((row) => row.siteId))]
  const added = input.roles.filter((role) => !before.some((row) => row.role === role))
  if (gone.length)
    await tx.delete(accountRoles).where(
      and(
        eq(accountRoles.accountId, account.id),
        inArray(
          accountRoles.id,
          gone.map((row) => row.id),
        ),
      ),
    )
  if (added.length)
    await tx
      .insert(accountRoles)
      .values(added.flatMap((role) => (siteIds.length ? siteIds : [null]).map((siteId) => ({ accountId: account.id, role, siteId }))))
  await tx
    .update(accounts)
    .set({
      approvalLimitMinor: input.approvalLimitMinor,
      disabledAt: input.disabled ? (account.disabledAt ?? now) : null,
      ...(input.teamId === undefined ? {} : { teamId: input.teamId }),
      version: account.version + 1,
    })
    .where(eq(accounts.id, account.id))
  if (input.disabled) await tx.delete(sessions).where(eq(sessions.accountId, account.id))
  await tell({
    kind: 'setup.account',
    details: {
      fields: {
        roles: { from: before.map((row) => row.role), to: input.roles },
        approvalLimitMinor: { from: account.approvalLimitMinor, to: input.approvalLimitMinor },
      },
      accountId: account.id,
    },
  })
  return readSetupSheet(tx)
})
