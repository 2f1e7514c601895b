import { and, asc, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { Stretch } from '#core/board'
import { shiftOn } from '#core/people'
import type { HeldSkill } from '#core/people'
import type { Reader } from '#server/kit'
import { onCallAt } from '#server/shifts'
import { accounts, leaves, people, shiftExceptions, teams, technicians, technicianSkills, technicianTrades, trades } from '../tables'

export interface CrewMember {
  id: number
  personId: number
  name: string
  team: string
  trades: { id: number; name: string }[]
  skills: HeldSkill[]
  shifts: Stretch[]
  away: Stretch[]
  onCall: Stretch[]
}

/**
 * Everybody who is sent out from a site, by team and name, with shifts and leave of some days.
 * @param days their first instants, in the zone of the site
 */
export async function crewOf(db: Reader, siteId: number, days: readonly DateTime<true>[]): Promise<CrewMember[]> {
  const names = days.map((day) => day.toISODate())
  const [from, until] = [
    DateTime.min(...days)!.toJSDate(),
    DateTime.max(...days)!
      .plus({ days: 1 })
      .toJSDate(),
  ]
  const [crew, traded, skilled, away, otherwise, onCall] = await Promise.all([
    db
      .select({ id: technicians.id, personId: people.id, name: people.name, team: teams.name, shift: technicians.shift })
      .from(technicians)
      .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
      .innerJoin(people, eq(people.id, accounts.personId))
      .innerJoin(teams, eq(teams.id, technicians.teamId))
      .where(eq(teams.siteId, siteId))
      .orderBy(asc(teams.name), asc(people.name)),
    db
      .select({ technicianId: technicianTrades.technicianId, id: trades.id, name: trades.name })
      .from(technicianTrades)
      .innerJoin(trades, eq(trades.id, technicianTrades.tradeId))
      .orderBy(asc(trades.name)),
    db
      .select({ technicianId: technicianSkills.technicianId, name: technicianSkills.name, until: technicianSkills.validUntil })
      .from(technicianSkills)
      .innerJoin(technicians, eq(technicians.id, technicianSkills.technicianId))
      .innerJoin(teams, eq(teams.id, technicians.teamId))
      .where(eq(teams.siteId, siteId)),
    db
      .select()
      .from(leaves)
      .where(and(lt(leaves.fromAt, until), gt(leaves.untilAt, from))),
    db.select().from(shiftExceptions).where(inArray(shiftExceptions.day, names)),
    onCallAt(db, siteId, from, until),
  ])
  // Most begin and end at the same hours: what a clock is on a day is looked up once.
  const clocks = new Map<string, Date>()
  const at = (day: DateTime<true>, clock: string): Date => {
    const key = `${day.toMillis()} ${clock}`
    const known = clocks.get(key) ?? clockOn(day, clock)
    clocks.set(key, known)
    return known
  }
  const [tradesOf, skillsOf, leavesOf, exceptionsOf] = [byTechnician(traded), byTechnician(skilled), byTechnician(away), byTechnician(otherwise)]
  return crew.map(({ id, personId, name, team, shift }) => ({
    id,
    personId,
    name,
    team,
    trades: (tradesOf.get(id) ?? []).map((row) => ({ id: row.id, name: row.name })),
    skills: (skillsOf.get(id) ?? []).map(({ name, until }) => ({ name, until })),
    shifts: days.flatMap((day) =>
      shiftOn(shift, exceptionsOf.get(id) ?? [], day.toISODate(), day.weekday).map((stretch) => ({
        from: at(day, stretch.from),
        until: at(day, stretch.to),
      })),
    ),
    away: (leavesOf.get(id) ?? []).map((row) => ({ from: row.fromAt, until: row.untilAt })),
    onCall: onCall.filter(({ technicianId }) => technicianId === id).map((span) => ({ from: span.from, until: span.until })),
  }))
}

/** "24:00" is the first instant of the day that follows. */
function clockOn(day: DateTime<true>, clock: string): Date {
  const [hour, minute] = clock.split(':').map(Number)
  return (hour === 24 ? day.plus({ days: 1 }) : day.set({ hour, minute })).toJSDate()
}

function byTechnician<Row extends { technicianId: number }>(rows: readonly Row[]): Map<number, Row[]> {
  const found = new Map<number, Row[]>()
  for (const row of rows) {
    const mine = found.get(row.technicianId)
    if (mine) mine.push(row)
    else found.set(row.technicianId, [row])
  }
  return found
}
