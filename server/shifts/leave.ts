import { and, asc, count, desc, eq, gt, inArray, lt, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { LeaveAsk, MyTime } from '#contract/shifts'
import * as contract from '#contract/shifts'
import { Refusal, refuse } from '#core/kit'
import { writeStretches } from '#core/people'
import { leaveReasons, MOST_TURN_DAYS } from '#core/shifts'
import { liveVisit } from '#server/dispatch/records'
import { canAt, command, conflict, maySee, mySite, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { goAway, leaveOver } from '#server/people/records'
import { accounts, leaveAsks, leaves, people, shiftExceptions, sites, teams, technicians, visits } from '../tables'
import { onCallAt } from './onCall'

type AskRecord = typeof leaveAsks.$inferSelect
const DAY_MS = 86_400_000
const AHEAD_MS = 70 * DAY_MS

/** The technician who asks. @throws ProblemReply 404 for who is sent nowhere */
async function meAs(db: Reader, who: Asker) {
  const [me] =
    who.technicianId === null
      ? []
      : await db
          .select({ technician: technicians, siteId: teams.siteId, team: teams.name, zone: sites.zone })
          .from(technicians)
          .innerJoin(teams, eq(teams.id, technicians.teamId))
          .innerJoin(sites, eq(sites.id, teams.siteId))
          .where(eq(technicians.id, who.technicianId))
  if (!me) throw notFound('technician')
  return me
}
const dayOf = (at: Date, zone: string) => DateTime.fromJSDate(at, { zone }).toISODate()!
/** From the first instant of a day to the first after the last. */
const spanOf = ({ fromDay, untilDay }: { fromDay: string; untilDay: string }, zone: string) => ({
  from: DateTime.fromISO(fromDay, { zone }).toJSDate(),
  until: DateTime.fromISO(untilDay, { zone }).plus({ days: 1 }).toJSDate(),
})

async function myTime(db: Reader, who: Asker, now: Date): Promise<Outgoing<MyTime>> {
  const { technician, siteId, zone } = await meAs(db, who)
  const [away, asks, otherwise, onCall, named] = await Promise.all([
    db
      .select()
      .from(leaves)
      .where(and(eq(leaves.technicianId, technician.id), gt(leaves.untilAt, now)))
      .orderBy(asc(leaves.fromAt)),
    db.select().from(leaveAsks).where(eq(leaveAsks.technicianId, technician.id)).orderBy(desc(leaveAsks.id)).limit(20),
    db.select().from(shiftExceptions).where(eq(shiftExceptions.technicianId, technician.id)).orderBy(asc(shiftExceptions.day)),
    // A turn that begins within it is told to its end.
    onCallAt(db, siteId, now, new Date(now.getTime() + AHEAD_MS + MOST_TURN_DAYS * DAY_MS)),
    db.select({ id: teams.id, name: teams.name }).from(teams).where(eq(teams.siteId, siteId)),
  ])
  const today = dayOf(now, zone)
  return {
    week: Array.from({ length: 7 }, (_, day) => writeStretches(technician.shift[day] ?? [])),
    otherwise: otherwise.filter(({ day }) => day >= today).map(({ day, stretches, reason }) => ({ day, stretches: writeStretches(stretches), reason })),
    leaves: away.map(({ fromAt, untilAt, reason }) => ({ from: fromAt, until: untilAt, reason })),
    asks: asks.map((ask) => ({
      id: ask.id,
      version: ask.version,
      from: ask.fromDay,
      until: ask.untilDay,
      reason: ask.reason,
      state: ask.state,
      askedAt: ask.askedAt,
      decidedBy: ask.decidedByName,
      answer: ask.answer,
    })),
    onCall: onCall
      .filter(({ technicianId, from }) => technicianId === technician.id && from.getTime() < now.getTime() + AHEAD_MS)
      .map(({ from, until, teamId }) => ({ from, until, team: named.find(({ id }) => id === teamId)?.name ?? '' })),
  }
}

export const readMyTime = query(contract.readMyTime, ({ db, who, now }) => myTime(db, who, now))

const factsOf = (ask: Pick<AskRecord, 'id' | 'technicianId' | 'fromDay' | 'untilDay'>, name: string) => ({
  askId: ask.id,
  technicianId: ask.technicianId,
  name,
  from: ask.fromDay,
  until: ask.untilDay,
})

export const askLeave = command(contract.askLeave, async ({ tx, who, input, now, tell }) => {
  const { technician, siteId, zone } = await meAs(tx, who)
  await tx.select({ id: technicians.id }).from(technicians).where(eq(technicians.id, technician.id)).for('update')
  const reasons = leaveReasons(input.from, input.until, dayOf(now, zone))
  if (reasons.length) throw new Refusal(reasons)
  const span = spanOf({ fromDay: input.from, untilDay: input.until }, zone)
  if ((await leaveOver(tx, technician.id, span.from, span.until)).length) refuse('away_twice', 'You are on leave then already.', 'from')
  const [twice] = await tx
    .select({ id: leaveAsks.id })
    .from(leaveAsks)
    .where(
      and(
        eq(leaveAsks.technicianId, technician.id),
        eq(leaveAsks.state, 'asked'),
        lt(leaveAsks.fromDay, DateTime.fromISO(input.until).plus({ days: 1 }).toISODate()!),
        gt(leaveAsks.untilDay, DateTime.fromISO(input.from).minus({ days: 1 }).toISODate()!),
      ),
    )
  if (twice) refuse('asked_twice', 'You have asked for some of these days already. Take that back first.', 'from')
  const ask = { fromDay: input.from, untilDay: input.until, reason: input.reason?.trim() || null }
  const [made] = await tx
    .insert(leaveAsks)
    .values({ siteId, technicianId: technician.id, ...ask, state: 'asked', askedAt: now })
    .$returningId()
  await tell({ kind: 'leave.ask', siteId, reason: ask.reason, details: factsOf({ id: made!.id, technicianId: technician.id, ...ask }, who.name) })
  return myTime(tx, who, now)
})

async function lockAsk(tx: Parameters<typeof goAway>[0], id: number, version: number) {
  const [ask] = await tx.select().from(leaveAsks).where(eq(leaveAsks.id, id)).for('update')
  if (!ask) throw notFound('leave')
  return { ask, stale: () => ask.version !== version && conflict(ask.version, [{ field: 'state', theirs: ask.state, yours: null }]) }
}
const mustBeAsked = (ask: AskRecord): void => void (ask.state === 'asked' || refuse('decided', 'It was decided or taken back already.'))

export const withdrawLeave = command(contract.withdrawLeave, async ({ tx, who, input, now, tell }) => {
  const { technician } = await meAs(tx, who)
  const { ask, stale } = await lockAsk(tx, input.id, input.version)
  if (ask.technicianId !== technician.id) throw notFound('leave')
  const conflicting = stale()
  if (conflicting) throw conflicting
  mustBeAsked(ask)
  await tx
    .update(leaveAsks)
    .set({ state: 'withdrawn', decidedAt: now, version: ask.version + 1 })
    .where(eq(leaveAsks.id, ask.id))
  await tell({ kind: 'leave.withdraw', siteId: ask.siteId, details: factsOf(ask, who.name) })
  return myTime(tx, who, now)
})

/** What is asked for at a site and not decided, with what stands against it. */
async function asksAt(db: Reader, siteId: number, zone: string): Promise<Outgoing<LeaveAsk>[]> {
  const rows = await db
    .select({ ask: leaveAsks, personId: people.id, name: people.name, teamId: teams.id, team: teams.name })
    .from(leaveAsks)
    .innerJoin(technicians, eq(technicians.id, leaveAsks.technicianId))
    .innerJoin(teams, eq(teams.id, technicians.teamId))
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(leaveAsks.siteId, siteId), eq(leaveAsks.state, 'asked')))
    .orderBy(asc(leaveAsks.fromDay), asc(leaveAsks.id))
    .limit(100)
  return Promise.all(
    rows.map(async ({ ask, personId, name, teamId, team }) => {
      const { from, until } = spanOf(ask, zone)
      const [[planned], others, onCall] = await Promise.all([
        db
          .select({ n: count() })
          .from(visits)
          .where(and(eq(visits.technicianId, ask.technicianId), liveVisit, lt(visits.plannedStart, until), gt(visits.plannedEnd, from))),
        db
          .selectDistinct({ name: people.name })
          .from(leaves)
          .innerJoin(technicians, eq(technicians.id, leaves.technicianId))
          .innerJoin(accounts, eq(accounts.id, technicians.accountId))
          .innerJoin(people, eq(people.id, accounts.personId))
          .where(and(eq(technicians.teamId, teamId), ne(technicians.id, ask.technicianId), lt(leaves.fromAt, until), gt(leaves.untilAt, from)))
          .orderBy(asc(people.name)),
        onCallAt(db, siteId, from, until),
      ])
      return {
        id: ask.id,
        version: ask.version,
        technicianId: ask.technicianId,
        personId,
        name,
        team,
        from: ask.fromDay,
        until: ask.untilDay,
        reason: ask.reason,
        askedAt: ask.askedAt,
        planned: planned!.n,
        alsoAway: others.map((one) => one.name),
        onCall: onCall.some(({ technicianId }) => technicianId === ask.technicianId),
      }
    }),
  )
}

export const listLeaveAsks = query(contract.listLeaveAsks, async ({ db, who, input }) => {
  const site = await mySite(db, who, input.siteId)
  return { rows: await asksAt(db, site.id, site.zone) }
})

export const decideLeave = command(contract.decideLeave, async ({ tx, who, input, now, tell }) => {
  const { ask, stale } = await lockAsk(tx, input.id, input.version)
  if (!maySee(who, ask.siteId)) throw notFound('leave')
  if (!canAt(who, 'registers.edit', ask.siteId)) throw notAllowed()
  if (ask.technicianId === who.technicianId) refuse('own', 'Somebody else decides on your own leave.')
  const conflicting = stale()
  if (conflicting) throw conflicting
  mustBeAsked(ask)
  const site = await mySite(tx, who, ask.siteId)
  const note = input.note?.trim() || null
  if (!input.agree && !note) refuse('reason_missing', 'Say why not.', 'note')
  if (input.agree) {
    const { from, until } = spanOf(ask, site.zone)
    await tx
      .select({ id: technicians.id })
      .from(technicians)
      .where(inArray(technicians.id, [ask.technicianId]))
      .for('update')
    if ((await leaveOver(tx, ask.technicianId, from, until)).length) refuse('away_twice', 'They are on leave then already: take that back, or refuse this.')
    await goAway(tx, ask.technicianId, [{ fromAt: from, untilAt: until, reason: ask.reason }])
  }
  await tx
    .update(leaveAsks)
    .set({
      state: input.agree ? 'agreed' : 'refused',
      decidedAt: now,
      decidedBy: who.accountId,
      decidedByName: who.name,
      answer: note,
      version: ask.version + 1,
    })
    .where(eq(leaveAsks.id, ask.id))
  const [asker] = await tx
    .select({ personId: people.id, name: people.name })
    .from(technicians)
    .innerJoin(accounts, eq(accounts.id, technicians.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(eq(technicians.id, ask.technicianId))
  await tell({
    kind: input.agree ? 'leave.agree' : 'leave.refuse',
    siteId: ask.siteId,
    register: 'people',
    recordId: asker!.personId,
    reason: note,
    details: factsOf(ask, asker!.name),
  })
  return { rows: await asksAt(tx, site.id, site.zone) }
})
