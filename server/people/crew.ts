import { and, asc, desc, eq, gt, or } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { CrewSheet } from '#contract/people'
import { Refusal, refuse } from '#core/kit'
import { writeStretches } from '#core/people'
import { isOverOn } from '#core/registers'
import { can, canAt, maySee, notFound } from '#server/kit'
import type { Asker, Outgoing, Reader, Tell, Tx } from '#server/kit'
import {
  accountRoles,
  accounts,
  deputies,
  leaves,
  people,
  places,
  shiftExceptions,
  sites,
  teams,
  technicianRates,
  technicians,
  technicianSkills,
  technicianTrades,
  trades,
} from '../tables'

/** A person at work, as they were found. */
export interface AtWork {
  person: typeof people.$inferSelect
  zone: string
  accountId: number | null
  technician: typeof technicians.$inferSelect | null
}

/** @throws ProblemReply 404 when they are not theirs to see */
export async function atWork(db: Reader, who: Asker, personId: number): Promise<AtWork> {
  const [row] = await db
    .select({ person: people, zone: sites.zone, accountId: accounts.id, technician: technicians })
    .from(people)
    .innerJoin(sites, eq(sites.id, people.siteId))
    .leftJoin(accounts, eq(accounts.personId, people.id))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .where(eq(people.id, personId))
  if (!row || !maySee(who, row.person.siteId)) throw notFound('person')
  return row
}

/** The technician somebody is, held for a change. @throws Refusal when they are none, ProblemReply 404 */
export async function lockTechnician(tx: Tx, who: Asker, personId: number) {
  const found = await atWork(tx, who, personId)
  if (found.person.retiredAt) refuse('retired', 'They are retired. Take them into use again to change this.')
  if (!found.technician) throw new Refusal([{ code: 'no_technician', sentence: 'They are no technician yet: say their team first.', field: 'teamId' }])
  await tx.select({ id: technicians.id }).from(technicians).where(eq(technicians.id, found.technician.id)).for('update')
  return { ...found, technician: found.technician }
}

export const tellCrew = (tell: Tell, { person }: AtWork, what: string) =>
  tell({ kind: 'people.crew', siteId: person.siteId, register: 'people', recordId: person.id, details: { what } })

/** The first instant of a day at the site. */
export const dayStart = (day: string, zone: string): Date => DateTime.fromISO(day, { zone }).toJSDate()
export const dayAt = (at: Date, zone: string): string => DateTime.fromJSDate(at, { zone }).toISODate()!

export async function crewSheet(db: Reader, who: Asker, personId: number, now: Date): Promise<Outgoing<CrewSheet>> {
  const found = await atWork(db, who, personId)
  const { person, zone, accountId, technician } = found
  const seesRates = can(who, 'registers.edit') || can(who, 'ledger.read')
  const [roles, standing, own] = await Promise.all([
    accountId ? rolesOf(db, accountId) : [],
    accountId ? deputiesOf(db, accountId, now) : [],
    technician ? technicianSays(db, technician, zone, now, seesRates) : null,
  ])
  return {
    id: person.id,
    version: technician?.version ?? 0,
    whyNot: !canAt(who, 'registers.edit', person.siteId)
      ? 'Your role reads this and does not change it.'
      : person.retiredAt
        ? 'They are retired. Take them into use again to change this.'
        : !accountId
          ? 'They have no account: an administrator makes one in Setup.'
          : null,
    roles,
    deputies: standing,
    isTechnician: technician !== null,
    ...(own ?? NOBODY),
    ...week(technician?.shift ?? null),
  }
}

const NOBODY = {
  teamId: null,
  team: null,
  homePlaceId: null,
  home: null,
  stepMinutes: null,
  callOutMinutes: null,
  trades: [],
  skills: [],
  exceptions: [],
  leaves: [],
  rates: null,
}

function week(shift: (typeof technicians.$inferSelect)['shift'] | null) {
  const day = (index: number) => (shift ? writeStretches(shift[index] ?? []) || null : null)
  return { day1: day(0), day2: day(1), day3: day(2), day4: day(3), day5: day(4), day6: day(5), day7: day(6) }
}

const rolesOf = (db: Reader, accountId: number) =>
  db
    .select({ role: accountRoles.role, site: sites.code })
    .from(accountRoles)
    .leftJoin(sites, eq(sites.id, accountRoles.siteId))
    .where(eq(accountRoles.accountId, accountId))
    .orderBy(asc(accountRoles.role))

async function deputiesOf(db: Reader, accountId: number, now: Date) {
  const rows = await db
    .select()
    .from(deputies)
    .where(and(or(eq(deputies.forAccountId, accountId), eq(deputies.deputyAccountId, accountId)), gt(deputies.untilAt, now)))
    .orderBy(asc(deputies.fromAt))
  const nameOf = async (id: number) =>
    (await db.select({ name: people.name }).from(accounts).innerJoin(people, eq(people.id, accounts.personId)).where(eq(accounts.id, id)))[0]?.name ?? ''
  return Promise.all(
    rows.map(async ({ forAccountId, deputyAccountId, fromAt, untilAt }) => ({
      name: await nameOf(forAccountId === accountId ? deputyAccountId : forAccountId),
      standsIn: deputyAccountId === accountId,
      fromAt,
      untilAt,
    })),
  )
}

async function technicianSays(db: Reader, technician: typeof technicians.$inferSelect, zone: string, now: Date, seesRates: boolean) {
  const { id, teamId, homePlaceId, stepMinutes, callOutMinutes } = technician
  const today = dayAt(now, zone)
  const [[team], [home], tradeRows, skills, exceptions, away, rates] = await Promise.all([
    db.select({ name: teams.name }).from(teams).where(eq(teams.id, teamId)),
    homePlaceId ? db.select({ code: places.code, name: places.name }).from(places).where(eq(places.id, homePlaceId)) : [],
    db
      .select({ id: trades.id, name: trades.name })
      .from(technicianTrades)
      .innerJoin(trades, eq(trades.id, technicianTrades.tradeId))
      .where(eq(technicianTrades.technicianId, id))
      .orderBy(asc(trades.name)),
    db.select().from(technicianSkills).where(eq(technicianSkills.technicianId, id)).orderBy(asc(technicianSkills.name)),
    db.select().from(shiftExceptions).where(eq(shiftExceptions.technicianId, id)).orderBy(asc(shiftExceptions.day)),
    db.select().from(leaves).where(eq(leaves.technicianId, id)).orderBy(desc(leaves.fromAt)).limit(20),
    db.select().from(technicianRates).where(eq(technicianRates.technicianId, id)).orderBy(desc(technicianRates.fromAt)),
  ])
  return {
    teamId,
    team: team?.name ?? null,
    homePlaceId,
    home: home ? `${home.code} ${home.name}` : null,
    stepMinutes,
    callOutMinutes,
    trades: tradeRows,
    skills: skills.map(({ technicianId: _, ...skill }) => ({ ...skill, over: isOverOn(skill.validUntil, today) })),
    exceptions: exceptions.filter((one) => one.day >= today).map(({ technicianId: _, ...one }) => one),
    leaves: away.map(({ id: leaveId, fromAt, untilAt, reason }) => ({
      id: leaveId,
      from: dayAt(fromAt, zone),
      until: dayAt(new Date(untilAt.getTime() - 1), zone),
      reason,
      now: fromAt <= now && now < untilAt,
    })),
    rates: seesRates
      ? rates.map(({ id: rateId, fromAt, normalPerHour, overtimePerHour }) => ({
          id: rateId,
          from: dayAt(fromAt, zone),
          normalPerHour,
          overtimePerHour,
          future: fromAt > now,
        }))
      : null,
  }
}
