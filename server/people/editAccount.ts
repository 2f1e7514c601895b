import { eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/people'
import { refuse } from '#core/kit'
import { may, outOfReach } from '#core/people'
import type { Grant } from '#core/people'
import { command, conflict, mustKnow, notFound, reaches } from '#server/kit'
import type { Tx } from '#server/kit'
import { accountRoles, accounts, people, sites, technicians } from '../tables'
import { keepAccount, keepGrants } from './keepAccount'
import { readAccountsSheet } from './accountsSheet'

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
  await keepGrants(tx, account.id, before, after)
  await keepAccount(tx, account, input, now)
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
  return readAccountsSheet(tx, who)
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
