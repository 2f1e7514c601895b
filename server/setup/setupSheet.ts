import { asc, eq } from 'drizzle-orm'
import type { SetupSheet } from '#contract/setup'
import { HOLD_REASONS } from '#core/orders'
import type { Reader } from '#server/kit'
import { holdsThatStop } from '#server/orders'
import { accountRoles, accounts, numberings, people, sites, targetRules, teams, technicians } from '../tables'

export async function readSetupSheet(db: Reader): Promise<SetupSheet> {
  const accountRows = await db
    .select({ account: accounts, name: people.name, shiftTeamId: technicians.teamId })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .orderBy(asc(people.name))
  const roleRows = await db.select().from(accountRoles)
  const targets = await db
    .select({ rule: targetRules, siteCode: sites.code })
    .from(targetRules)
    .innerJoin(sites, eq(sites.id, targetRules.siteId))
    .orderBy(asc(targetRules.id))
  const numberingRows = await db
    .select({ numbering: numberings, siteCode: sites.code })
    .from(numberings)
    .innerJoin(sites, eq(sites.id, numberings.siteId))
    .orderBy(asc(sites.id))
  const stops = await holdsThatStop(db)
  return {
    teams: await db.select({ id: teams.id, name: teams.name }).from(teams).orderBy(asc(teams.name)),
    accounts: accountRows.map(({ account, name, shiftTeamId }) => ({
      id: account.id,
      version: account.version,
      name,
      email: account.email,
      approvalLimitMinor: account.approvalLimitMinor,
      disabled: account.disabledAt !== null,
      teamId: account.teamId ?? shiftTeamId,
      roles: [...new Set(roleRows.filter((row) => row.accountId === account.id).map((row) => row.role))],
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
