import { asc, eq } from 'drizzle-orm'
import type { SetupSheet } from '#contract/setup'
import { HOLD_REASONS } from '#core/orders'
import type { Grant } from '#core/people'
import { outOfReach } from '#core/people'
import type { Asker, Reader } from '#server/kit'
import { withinSites } from '#server/kit'
import { holdsThatStop, unableAt } from '#server/orders'
import { accountRoles, accounts, numberings, people, sites, targetRules, teams, technicians } from '../tables'
import { reaches } from './reach'

export async function readSetupSheet(db: Reader, who: Asker): Promise<SetupSheet> {
  const accountRows = await db
    .select({ account: accounts, name: people.name, homeSiteId: people.siteId, shiftTeamId: technicians.teamId })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .orderBy(asc(people.name))
  const roleRows = await db.select().from(accountRoles)
  const grantsOf = (id: number): Grant[] => roleRows.filter((row) => row.accountId === id).map(({ role, siteId }) => ({ role, siteId }))
  const targets = await db
    .select({ rule: targetRules, siteCode: sites.code })
    .from(targetRules)
    .innerJoin(sites, eq(sites.id, targetRules.siteId))
    .where(withinSites(who, targetRules.siteId))
    .orderBy(asc(targetRules.id))
  const numberingRows = await db
    .select({ numbering: numberings, siteCode: sites.code })
    .from(numberings)
    .innerJoin(sites, eq(sites.id, numberings.siteId))
    .where(withinSites(who, numberings.siteId))
    .orderBy(asc(sites.id))
  const stops = await holdsThatStop(db)
  return {
    teams: await db.select({ id: teams.id, name: teams.name }).from(teams).where(withinSites(who, teams.siteId)).orderBy(asc(teams.name)),
    sites: await db.select({ id: sites.id, code: sites.code, name: sites.name }).from(sites).where(withinSites(who, sites.id)).orderBy(asc(sites.id)),
    everywhere: who.siteIds === null,
    unable: await unableAt(db, who),
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
    targets: targets.map(({ rule, siteCode }) => ({
      id: rule.id,
      siteCode,
      priority: rule.priority,
      clock: rule.clock,
      responseMinutes: rule.responseMinutes,
      completionMinutes: rule.completionMinutes,
    })),
    numberings: numberingRows.map(({ numbering, siteCode }) => ({ ...numbering, siteCode })),
    holds: HOLD_REASONS.map((reason) => ({ reason, stopsClock: stops.includes(reason) })),
  }
}
