import { and, asc, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { RotaSheet } from '#contract/shifts'
import * as contract from '#contract/shifts'
import { Refusal, refuse } from '#core/kit'
import { onCallBetween, rotaReasons, swapReasons } from '#core/shifts'
import type { OnCall } from '#core/shifts'
import { canAt, command, conflict, maySee, mySite, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tell, Tx } from '#server/kit'
import { accounts, leaves, people, rotas, rotaSwaps, sites, teams, technicians } from '../tables'

const WEEKS_AHEAD = 10
const AHEAD_MS = WEEKS_AHEAD * 7 * 86_400_000

/** Who is on call at a site between two instants, team by team. */
export async function onCallAt(db: Reader, siteId: number, from: Date, until: Date): Promise<(OnCall & { teamId: number })[]> {
  const rows = await db
    .select({ rota: rotas, zone: sites.zone })
    .from(rotas)
    .innerJoin(teams, eq(teams.id, rotas.teamId))
    .innerJoin(sites, eq(sites.id, teams.siteId))
    .where(eq(teams.siteId, siteId))
  if (!rows.length) return []
  const swaps = await db
    .select()
    .from(rotaSwaps)
    .where(
      and(
        inArray(
          rotaSwaps.teamId,
          rows.map(({ rota }) => rota.teamId),
        ),
        lt(rotaSwaps.fromAt, until),
        gt(rotaSwaps.untilAt, from),
      ),
    )
    .orderBy(asc(rotaSwaps.id))
  return rows.flatMap(({ rota, zone }) =>
    onCallBetween(
      rota,
      swaps.filter(({ teamId }) => teamId === rota.teamId).map(({ fromAt, untilAt, technicianId }) => ({ from: fromAt, until: untilAt, technicianId })),
      from,
      until,
      zone,
    ).map((span) => ({ ...span, teamId: rota.teamId })),
  )
}

const crewOfTeam = (db: Reader, teamId: number) =>
  db
    .select({ id: technicians.id, name: people.name })
    .from(technicians)
    .innerJoin(accounts, and(eq(accounts.id, technicians.accountId), isNull(accounts.disabledAt)))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(eq(technicians.teamId, teamId))
    .orderBy(asc(people.name))

async function teamOf(db: Reader, who: Asker, teamId: number) {
  const [found] = await db.select({ team: teams, zone: sites.zone }).from(teams).innerJoin(sites, eq(sites.id, teams.siteId)).where(eq(teams.id, teamId))
  if (!found || !maySee(who, found.team.siteId)) throw notFound('team')
  return found
}

async function rotaSheet(db: Reader, who: Asker, teamId: number, now: Date): Promise<Outgoing<RotaSheet>> {
  const { team, zone } = await teamOf(db, who, teamId)
  const until = new Date(now.getTime() + AHEAD_MS)
  const [[rota], crew, swaps] = await Promise.all([
    db.select().from(rotas).where(eq(rotas.teamId, teamId)),
    crewOfTeam(db, teamId),
    db
      .select({ swap: rotaSwaps, name: people.name })
      .from(rotaSwaps)
      .innerJoin(technicians, eq(technicians.id, rotaSwaps.technicianId))
      .innerJoin(accounts, eq(accounts.id, technicians.accountId))
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(and(eq(rotaSwaps.teamId, teamId), gt(rotaSwaps.untilAt, now)))
      .orderBy(asc(rotaSwaps.fromAt)),
  ])
  const ahead = rota
    ? onCallBetween(
        rota,
        [...swaps].sort((a, b) => a.swap.id - b.swap.id).map(({ swap }) => ({ from: swap.fromAt, until: swap.untilAt, technicianId: swap.technicianId })),
        now,
        until,
        zone,
      )
    : []
  const away = await awayOf(db, ahead)
  const nameOf = (id: number) => crew.find((one) => one.id === id)?.name ?? swaps.find(({ swap }) => swap.technicianId === id)?.name ?? 'Somebody who left'
  return {
    teamId,
    version: rota?.version ?? 0,
    whyNot: canAt(who, 'registers.edit', team.siteId) ? null : 'Your role reads this and does not change it.',
    technicians: crew,
    memberIds: rota?.memberIds ?? [],
    startDay: rota?.startDay ?? DateTime.fromJSDate(now, { zone }).startOf('week').plus({ weeks: 1 }).toISODate()!,
    turnDays: rota?.turnDays ?? 7,
    handover: rota?.handover ?? '08:00',
    swaps: swaps.map(({ swap, name }) => ({
      id: swap.id,
      technicianId: swap.technicianId,
      name,
      from: swap.fromAt,
      until: swap.untilAt,
      reason: swap.reason,
    })),
    ahead: ahead.map((span) => ({ ...span, name: nameOf(span.technicianId), away: away(span) })),
  }
}

/** Tells whether who is on call is on leave during some of it. */
async function awayOf(db: Reader, spans: readonly OnCall[]): Promise<(span: OnCall) => boolean> {
  if (!spans.length) return () => false
  const rows = await db
    .select()
    .from(leaves)
    .where(and(lt(leaves.fromAt, spans.at(-1)!.until), gt(leaves.untilAt, spans[0]!.from)))
  return (span) => rows.some((row) => row.technicianId === span.technicianId && row.fromAt < span.until && row.untilAt > span.from)
}

export const readRota = query(contract.readRota, ({ db, who, input, now }) => rotaSheet(db, who, input.teamId, now))

/** The team of whoever keeps its rota, held. @throws ProblemReply 404, 403 */
async function lockTeam(tx: Tx, who: Asker, teamId: number) {
  const { team } = await teamOf(tx, who, teamId)
  if (!canAt(who, 'registers.edit', team.siteId)) throw notAllowed()
  await tx.select({ id: teams.id }).from(teams).where(eq(teams.id, teamId)).for('update')
  return team
}
const tellOf = (tell: Tell, team: { id: number; siteId: number }, what: string) =>
  tell({ kind: 'rota.keep', siteId: team.siteId, register: 'teams', recordId: team.id, details: { what } })

async function mustBeOfTeam(tx: Tx, teamId: number, ids: readonly number[], field: string): Promise<void> {
  const crew = await crewOfTeam(tx, teamId)
  if (ids.some((id) => !crew.some((one) => one.id === id))) refuse('not_of_team', 'Choose technicians of this team.', field)
}

export const keepRota = command(contract.keepRota, async ({ tx, who, input, now, tell }) => {
  const { teamId, version, ...rota } = input
  const team = await lockTeam(tx, who, teamId)
  const [before] = await tx.select().from(rotas).where(eq(rotas.teamId, teamId))
  if ((before?.version ?? 0) !== version) throw conflict(before?.version ?? 0, [])
  const reasons = rotaReasons(rota)
  if (reasons.length) throw new Refusal(reasons)
  await mustBeOfTeam(tx, teamId, rota.memberIds, 'memberIds')
  const kept = { ...rota, version: version + 1 }
  await tx
    .insert(rotas)
    .values({ teamId, ...kept })
    .onDuplicateKeyUpdate({ set: kept })
  await tellOf(tell, team, rota.memberIds.length ? `${rota.memberIds.length} in turn, ${rota.turnDays} days each` : 'nobody')
  return rotaSheet(tx, who, teamId, now)
})

export const addSwap = command(contract.addSwap, async ({ tx, who, input, now, tell }) => {
  const team = await lockTeam(tx, who, input.teamId)
  const span = { from: new Date(input.from), until: new Date(input.until) }
  const reasons = swapReasons(span)
  if (reasons.length) throw new Refusal(reasons)
  if (span.until <= now) refuse('in_the_past', 'Choose a time that has not passed.', 'until')
  await mustBeOfTeam(tx, input.teamId, [input.technicianId], 'technicianId')
  const values = { untilAt: span.until, reason: input.reason?.trim() || null }
  await tx
    .insert(rotaSwaps)
    .values({ teamId: input.teamId, technicianId: input.technicianId, fromAt: span.from, ...values })
    .onDuplicateKeyUpdate({ set: values })
  await tellOf(tell, team, 'somebody stands in')
  return rotaSheet(tx, who, input.teamId, now)
})

export const dropSwap = command(contract.dropSwap, async ({ tx, who, input, now, tell }) => {
  const team = await lockTeam(tx, who, input.teamId)
  await tx.delete(rotaSwaps).where(and(eq(rotaSwaps.id, input.itemId), eq(rotaSwaps.teamId, input.teamId)))
  await tellOf(tell, team, 'as the rota says')
  return rotaSheet(tx, who, input.teamId, now)
})

export const listOnCall = query(contract.listOnCall, async ({ db, who, input, now }) => {
  const site = await mySite(db, who, input.siteId)
  const soon = new Date(now.getTime() + AHEAD_MS)
  // How long it lasts is said as well.
  const spans = (await onCallAt(db, site.id, now, soon)).filter(({ from }) => from <= now)
  if (!spans.length) return { rows: [] }
  const [whom, away] = await Promise.all([
    db
      .select({ id: technicians.id, personId: people.id, name: people.name, phone: people.phone })
      .from(technicians)
      .innerJoin(accounts, eq(accounts.id, technicians.accountId))
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(
        inArray(
          technicians.id,
          spans.map(({ technicianId }) => technicianId),
        ),
      ),
    awayOf(
      db,
      spans.map((span) => ({ ...span, until: new Date(span.from.getTime() + 60_000) })),
    ),
  ])
  const named = await db
    .select({ id: teams.id, name: teams.name })
    .from(teams)
    .where(
      inArray(
        teams.id,
        spans.map(({ teamId }) => teamId),
      ),
    )
  return {
    rows: spans.flatMap((span) => {
      const one = whom.find(({ id }) => id === span.technicianId)
      if (!one) return []
      return [
        {
          teamId: span.teamId,
          team: named.find(({ id }) => id === span.teamId)?.name ?? '',
          technicianId: one.id,
          personId: one.personId,
          name: one.name,
          phone: one.phone,
          from: span.from,
          until: span.until,
          away: away({ ...span, until: new Date(span.from.getTime() + 60_000) }),
        },
      ]
    }),
  }
})
