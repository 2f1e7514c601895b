import { and, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { refuse } from '#core/kit'
import { may, outOfReach } from '#core/people'
import type { Grant } from '#core/people'
import { command, conflict, mustKnow, notFound } from '#server/kit'
import type { Tx } from '#server/kit'
import { accountRoles, accounts, people, sessions, sites, technicians } from '../tables'
import { reaches } from './reach'
import { readSetupSheet } from './setupSheet'

type Account = typeof accounts.$inferSelect

export default command(contract.editAccount, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx
    .select({ account: accounts, homeSiteId: people.siteId, shiftTeamId: technicians.teamId })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .where(eq(accounts.id, input.id))
    .for('update')
  const before = await tx.select().from(accountRoles).where(eq(accountRoles.accountId, input.id))
  if (!found || !reaches(who, found.homeSiteId, before)) throw notFound('account')
  const { account } = found
  const after = input.roles.map(({ role, siteId }): Grant => ({ role, siteId: siteId ?? null }))
  if (account.version !== input.version)
    throw conflict(account.version, [
      { field: 'approvalLimitMinor', theirs: account.approvalLimitMinor, yours: input.approvalLimitMinor },
      { field: 'roles', theirs: before.map(({ role, siteId }) => ({ role, siteId })), yours: input.roles },
    ])
  if (account.id === who.accountId && (input.disabled || losesSetup(before, after)))
    refuse('own_account', 'You cannot take your own access away; another administrator can.', 'roles')
  await refuseUnknownSites(tx, after)
  if (outOfReach(who.siteIds, before, after).length)
    refuse('out_of_reach', 'You give and take roles at your own sites; an administrator of the other sites changes the rest.', 'roles')
  const ofAccount = input.disabled !== (account.disabledAt !== null) || input.approvalLimitMinor !== account.approvalLimitMinor
  if (ofAccount && outOfReach(who.siteIds, before, []).length)
    refuse('works_elsewhere', `This account works at other sites too; an administrator of all its sites changes its limit and closes it.`, 'approvalLimitMinor')
  // A team that stays as it is may be of another site.
  if (input.teamId && input.teamId !== account.teamId && input.teamId !== found.shiftTeamId)
    await mustKnow(tx, { siteId: found.homeSiteId, who }, { teamId: ['team', input.teamId] })
  await saveGrants(tx, account, before, after)
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
        roles: { from: before.map(({ role, siteId }) => ({ role, siteId })), to: after },
        approvalLimitMinor: { from: account.approvalLimitMinor, to: input.approvalLimitMinor },
        disabled: { from: account.disabledAt !== null, to: input.disabled },
      },
      accountId: account.id,
    },
  })
  return readSetupSheet(tx, who)
})

/** Whether somebody would hold Setup at fewer sites than before. */
function losesSetup(before: readonly Grant[], after: readonly Grant[]): boolean {
  return before.some(
    (one) => may([one.role], 'setup.edit') && !after.some((two) => may([two.role], 'setup.edit') && (two.siteId === null || two.siteId === one.siteId)),
  )
}

async function refuseUnknownSites(tx: Tx, grants: readonly Grant[]): Promise<void> {
  const ids = [...new Set(grants.flatMap((grant) => grant.siteId ?? []))]
  const known = ids.length ? await tx.select({ id: sites.id }).from(sites).where(inArray(sites.id, ids)) : []
  if (known.length < ids.length) refuse('site_unknown', 'Choose sites from the list.', 'roles')
}

/** A unique index does not hold for “every site”, which is null: what is there already is not written again. */
async function saveGrants(tx: Tx, account: Account, before: (typeof accountRoles.$inferSelect)[], after: readonly Grant[]): Promise<void> {
  const same = (a: Grant, b: Grant) => a.role === b.role && a.siteId === b.siteId
  const gone = before.filter((row) => !after.some((grant) => same(row, grant)))
  const added = after.filter((grant, index) => !before.some((row) => same(row, grant)) && after.findIndex((one) => same(one, grant)) === index)
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
  if (added.length) await tx.insert(accountRoles).values(added.map((grant) => ({ accountId: account.id, ...grant })))
}
