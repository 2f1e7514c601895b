import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/people'
import { skillsOnce } from '#core/people'
import type { Role } from '#core/people'
import { accountRoles, accounts, categories, ownStates, payers, people, sites, teams, technicians, technicianSkills, trades, vendors } from '../tables'
import { query, withinSites } from '#server/kit'

/** What is retired keeps its name where it stands, and is not chosen any more. */
const retired = (at: MySqlColumn) => sql<boolean>`${at} is not null`.mapWith(Boolean)

export default query(contract.readVocabulary, async ({ db, who }) => {
  const [tradeRows, categoryRows, payerRows, teamRows, roleRows, siteRows] = await Promise.all([
    db.select({ id: trades.id, name: trades.name }).from(trades).orderBy(asc(trades.name)),
    db.select({ id: categories.id, name: categories.name, tradeId: categories.tradeId }).from(categories).orderBy(asc(categories.name)),
    db
      .select({ id: payers.id, code: payers.code, name: payers.name, kind: payers.kind, retired: retired(payers.retiredAt) })
      .from(payers)
      .orderBy(asc(payers.code)),
    db
      .select({ id: teams.id, name: teams.name, retired: retired(teams.retiredAt) })
      .from(teams)
      .where(withinSites(who, teams.siteId))
      .orderBy(asc(teams.name)),
    db
      .select({ id: accounts.id, name: people.name, role: accountRoles.role })
      .from(accounts)
      .innerJoin(people, eq(people.id, accounts.personId))
      .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
      .where(and(isNull(accounts.disabledAt), withinSites(who, people.siteId)))
      .orderBy(asc(people.name)),
    db.select({ id: sites.id, name: sites.name, code: sites.code }).from(sites).where(withinSites(who, sites.id)).orderBy(asc(sites.id)),
  ])
  const byAccount = new Map<number, { id: number; name: string; roles: Role[] }>()
  for (const { id, name, role } of roleRows) {
    const person = byAccount.get(id) ?? { id, name, roles: [] }
    person.roles.push(role)
    byAccount.set(id, person)
  }
  const [technicianRows, skillRows, vendorRows, ownStateRows] = await Promise.all([
    db
      .select({ id: technicians.id, name: people.name })
      .from(technicians)
      .innerJoin(accounts, eq(accounts.id, technicians.accountId))
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(withinSites(who, people.siteId))
      .orderBy(asc(people.name)),
    db.selectDistinct({ name: technicianSkills.name }).from(technicianSkills),
    db
      .select({ id: vendors.id, name: vendors.name, retired: retired(vendors.retiredAt) })
      .from(vendors)
      .orderBy(asc(vendors.name)),
    db
      .select({
        id: ownStates.id,
        siteId: ownStates.siteId,
        under: ownStates.under,
        name: ownStates.name,
        mark: ownStates.mark,
        retired: retired(ownStates.retiredAt),
      })
      .from(ownStates)
      .where(withinSites(who, ownStates.siteId))
      .orderBy(asc(ownStates.id)),
  ])
  return {
    trades: tradeRows,
    categories: categoryRows,
    payers: payerRows,
    teams: teamRows,
    accounts: [...byAccount.values()],
    sites: siteRows,
    technicians: technicianRows,
    skills: skillsOnce(skillRows.map(({ name }) => name)),
    vendors: vendorRows,
    ownStates: ownStateRows,
  }
})
