import { asc, eq } from 'drizzle-orm'
import type { AccountsSheet } from '#contract/people'
import type { Grant } from '#core/people'
import { outOfReach } from '#core/people'
import { reaches, withinSites } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { accountRoles, accounts, people, sites, teams, technicians } from '../tables'

/** The people who sign in whom this administrator reaches. */
export async function readAccountsSheet(db: Reader, who: Asker): Promise<AccountsSheet> {
  const accountRows = await db
    .select({ account: accounts, name: people.name, homeSiteId: people.siteId, shiftTeamId: technicians.teamId })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .orderBy(asc(people.name))
  const roleRows = await db.select().from(accountRoles)
  const grantsOf = (id: number): Grant[] => roleRows.filter((row) => row.accountId === id).map(({ role, siteId }) => ({ role, siteId }))
  return {
    teams: await db.select({ id: teams.id, name: teams.name }).from(teams).where(withinSites(who, teams.siteId)).orderBy(asc(teams.name)),
    sites: await db.select({ id: sites.id, code: sites.code, name: sites.name }).from(sites).where(withinSites(who, sites.id)).orderBy(asc(sites.id)),
    everywhere: who.siteIds === null,
    accounts: accountRows
      .filter(({ account, homeSiteId }) => reaches(who, homeSiteId, grantsOf(account.id)))
      .map(({ account, name, shiftTeamId }) => ({
        id: account.id,
        version: account.version,
        name,
        email: account.email,
        approvalLimitMinor: account.approvalLimitMinor,
        disabled: account.disabledAt !== null,
        teamId: account.teamId ?? shiftTeamId,
        roles: grantsOf(account.id),
        whole: outOfReach(who.siteIds, grantsOf(account.id), []).length === 0,
      })),
  }
}
