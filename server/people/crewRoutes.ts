import { and, eq, gt, lt } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/people'
import type { CrewEdit } from '#contract/people'
import { Refusal, refuse } from '#core/kit'
import type { DayStretch, Reason } from '#core/kit'
import { readStretches, WEEKDAYS } from '#core/people'
import { command, conflict, mustKnow, query } from '#server/kit'
import type { Route, Tx } from '#server/kit'
import { accounts, leaves, shiftExceptions, technicianRates, technicians, technicianSkills, technicianTrades } from '../tables'
import { atWork, crewSheet, dayAt, dayStart, lockTechnician, tellCrew } from './crew'
import type { AtWork } from './crew'

const DAYS = ['day1', 'day2', 'day3', 'day4', 'day5', 'day6', 'day7'] as const
const NO_STRETCHES = 'Write from and to, like 08:00-12:30, 13:00-16:30; leave it empty for a day off.'

const readCrew = query(contract.readCrew, ({ db, who, input, now }) => crewSheet(db, who, input.id, now))

const editCrew = command(contract.editCrew, async ({ tx, who, input, now, tell }) => {
  const { id, version, tradeIds, ...sent } = input
  const found = await atWork(tx, who, id)
  if (found.person.retiredAt) refuse('retired', 'They are retired. Take them into use again to change this.')
  const technician = found.technician ?? (await makeTechnician(tx, found, sent.teamId))
  const [held] = await tx.select().from(technicians).where(eq(technicians.id, technician.id)).for('update')
  // Who was made a technician just now was none when the Sheet was read.
  if (found.technician && held!.version !== version) throw conflict(held!.version, [])
  await mustKnow(
    tx,
    { siteId: found.person.siteId, who },
    { teamId: ['team', sent.teamId], homePlaceId: ['place', sent.homePlaceId], tradeIds: ['trade', tradeIds] },
  )
  const { teamId, homePlaceId, stepMinutes, callOutMinutes } = sent
  const given = Object.fromEntries(Object.entries({ teamId, homePlaceId, stepMinutes, callOutMinutes }).filter(([, value]) => value !== undefined))
  await tx
    .update(technicians)
    .set({ ...given, shift: weekOf(held!.shift, sent), version: held!.version + 1 })
    .where(eq(technicians.id, technician.id))
  if (tradeIds) {
    await tx.delete(technicianTrades).where(eq(technicianTrades.technicianId, technician.id))
    if (tradeIds.length) await tx.insert(technicianTrades).values(tradeIds.map((tradeId) => ({ technicianId: technician.id, tradeId })))
  }
  const what = [
    ...Object.keys(given).map((name) => SAYS[name]!),
    ...(tradeIds ? ['trades'] : []),
    ...(DAYS.some((day) => sent[day] !== undefined) ? ['the week'] : []),
  ]
  await tellCrew(tell, found, what.join(', '))
  return crewSheet(tx, who, id, now)
})
const SAYS: Record<string, string> = { teamId: 'team', homePlaceId: 'home base', stepMinutes: 'steps of charging', callOutMinutes: 'the least for a call-out' }

async function makeTechnician(tx: Tx, { accountId }: AtWork, teamId: number | undefined) {
  if (!accountId) refuse('no_account', 'They have no account: an administrator makes one in Setup.', 'teamId')
  if (!teamId) refuse('team_missing', 'Say their team first: it makes a technician of them.', 'teamId')
  // Two who say a team at once make one technician.
  await tx.select({ id: accounts.id }).from(accounts).where(eq(accounts.id, accountId)).for('update')
  const [already] = await tx.select({ id: technicians.id }).from(technicians).where(eq(technicians.accountId, accountId))
  if (already) return already
  const weekdays = WEEKDAYS.map((_, day) => (day < 5 ? [{ from: '08:00', to: '16:30' }] : []))
  const [made] = await tx.insert(technicians).values({ accountId, teamId, shift: weekdays, stepMinutes: 15, callOutMinutes: 0 }).$returningId()
  return made!
}

/** The week with the days that were sent. @throws Refusal at every day that cannot be read */
function weekOf(before: DayStretch[][], sent: Partial<CrewEdit>): DayStretch[][] {
  const reasons: Reason[] = []
  const week = DAYS.map((name, index) => {
    if (sent[name] === undefined) return before[index] ?? []
    const read = readStretches(sent[name] ?? '')
    if (!read) reasons.push({ code: 'stretches', sentence: NO_STRETCHES, field: name })
    return read ?? []
  })
  if (reasons.length) throw new Refusal(reasons)
  return week
}

const saveSkill = command(contract.saveSkill, async ({ tx, who, input, now, tell }) => {
  const found = await lockTechnician(tx, who, input.id)
  const values = { certificate: input.certificate || null, validUntil: input.validUntil || null }
  await tx
    .insert(technicianSkills)
    .values({ technicianId: found.technician.id, name: input.name, ...values })
    .onDuplicateKeyUpdate({ set: values })
  await tellCrew(tell, found, `${input.name}${values.validUntil ? ` until ${values.validUntil}` : ''}`)
  return crewSheet(tx, who, input.id, now)
})

const addRate = command(contract.addRate, async ({ tx, who, input, now, tell }) => {
  const found = await lockTechnician(tx, who, input.id)
  if (input.from < dayAt(now, found.zone)) refuse('charged_already', 'Work before today is charged already: choose today or later.', 'from')
  const rate = { normalPerHour: input.normalPerHour, overtimePerHour: input.overtimePerHour }
  await tx
    .insert(technicianRates)
    .values({ technicianId: found.technician.id, fromAt: dayStart(input.from, found.zone), ...rate })
    .onDuplicateKeyUpdate({ set: rate })
  await tellCrew(tell, found, `rates from ${input.from}`)
  return crewSheet(tx, who, input.id, now)
})

const addLeave = command(contract.addLeave, async ({ tx, who, input, now, tell }) => {
  const found = await lockTechnician(tx, who, input.id)
  if (input.until < input.from) refuse('backwards', 'It ends before it begins.', 'until')
  const [fromAt, untilAt] = [dayStart(input.from, found.zone), dayStart(DateTime.fromISO(input.until).plus({ days: 1 }).toISODate()!, found.zone)]
  const [over] = await tx
    .select({ id: leaves.id })
    .from(leaves)
    .where(and(eq(leaves.technicianId, found.technician.id), lt(leaves.fromAt, untilAt), gt(leaves.untilAt, fromAt)))
  if (over) refuse('away_twice', 'They are on leave then already. Take that one back first.', 'from')
  await tx.insert(leaves).values({ technicianId: found.technician.id, fromAt, untilAt, reason: input.reason || null })
  await tellCrew(tell, found, `leave from ${input.from} to ${input.until}`)
  return crewSheet(tx, who, input.id, now)
})

const saveShiftException = command(contract.saveShiftException, async ({ tx, who, input, now, tell }) => {
  const found = await lockTechnician(tx, who, input.id)
  const stretches = readStretches(input.stretches)
  if (!stretches) refuse('stretches', NO_STRETCHES, 'stretches')
  const values = { stretches, reason: input.reason || null }
  await tx
    .insert(shiftExceptions)
    .values({ technicianId: found.technician.id, day: input.day, ...values })
    .onDuplicateKeyUpdate({ set: values })
  await tellCrew(tell, found, `${input.day}: ${input.stretches || 'off'}`)
  return crewSheet(tx, who, input.id, now)
})

/** What takes one thing of a technician's away again; `holds` says what keeps it. */
const dropping = (
  endpoint: typeof contract.dropSkill,
  table: typeof technicianSkills | typeof technicianRates | typeof leaves | typeof shiftExceptions,
  what: string,
  holds: (tx: Tx, itemId: number, now: Date) => Promise<void> = () => Promise.resolve(),
) =>
  command(endpoint, async ({ tx, who, input, now, tell }) => {
    const found = await lockTechnician(tx, who, input.id)
    await holds(tx, input.itemId, now)
    await tx.delete(table).where(and(eq(table.id, input.itemId), eq(table.technicianId, found.technician.id)))
    await tellCrew(tell, found, what)
    return crewSheet(tx, who, input.id, now)
  })

/** @throws Refusal for a rate by which work was charged */
async function mustBeToCome(tx: Tx, rateId: number, now: Date): Promise<void> {
  const [rate] = await tx.select({ fromAt: technicianRates.fromAt }).from(technicianRates).where(eq(technicianRates.id, rateId))
  if (rate && rate.fromAt <= now) refuse('in_force', 'It is in force: work was charged by it. Add another from today on.')
}

const dropSkill = dropping(contract.dropSkill, technicianSkills, 'skills')
const dropRate = dropping(contract.dropRate, technicianRates, 'rates', mustBeToCome)
const dropLeave = dropping(contract.dropLeave, leaves, 'leave')
const dropShiftException = dropping(contract.dropShiftException, shiftExceptions, 'days that are otherwise')

export const crewRoutes: Route[] = [readCrew, editCrew, saveSkill, dropSkill, addRate, dropRate, addLeave, dropLeave, saveShiftException, dropShiftException]
