import { and, asc, eq, or } from 'drizzle-orm'
import type { PlaceWays } from '#contract/travel'
import * as contract from '#contract/travel'
import { refuse } from '#core/kit'
import { canAt, command, maySee, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { places, travelTimes } from '../tables'

async function placeOf(db: Reader, who: Asker, id: number) {
  const [place] = await db.select().from(places).where(eq(places.id, id))
  if (!place || !maySee(who, place.siteId)) throw notFound('place')
  return place
}

async function waysFrom(db: Reader, who: Asker, placeId: number): Promise<Outgoing<PlaceWays>> {
  const place = await placeOf(db, who, placeId)
  const rows = await db
    .select({ way: travelTimes, code: places.code, name: places.name })
    .from(travelTimes)
    .innerJoin(places, eq(places.id, travelTimes.toId))
    .where(eq(travelTimes.fromId, placeId))
    .orderBy(asc(places.code))
  const back = await db.select().from(travelTimes).where(eq(travelTimes.toId, placeId))
  const said = (toId: number) => rows.some(({ way }) => way.toId === toId && way.source === 'hand')
  return {
    // What somebody said goes before what was logged.
    rows: rows
      .filter(({ way }) => way.source === 'hand' || !said(way.toId))
      .map(({ way, code, name }) => ({
        toId: way.toId,
        to: `${code} ${name}`,
        minutes: way.minutes,
        back: (back.find((one) => one.fromId === way.toId && one.source === 'hand') ?? back.find((one) => one.fromId === way.toId))?.minutes ?? null,
        source: way.source,
        seen: way.seen,
        by: way.by,
        at: way.at,
      })),
    whyNot: !canAt(who, 'registers.edit', place.siteId)
      ? 'Your role reads this and does not change it.'
      : place.retiredAt
        ? 'It is retired. Take it into use again to change this.'
        : null,
  }
}

export const readPlaceWays = query(contract.readPlaceWays, ({ db, who, input }) => waysFrom(db, who, input.placeId))

async function mayChange(tx: Tx, who: Asker, placeId: number) {
  const place = await placeOf(tx, who, placeId)
  if (!canAt(who, 'registers.edit', place.siteId)) throw notAllowed()
  return place
}

export const sayWay = command(contract.sayWay, async ({ tx, who, input, now, tell }) => {
  const { placeId, toId, minutes } = input
  const place = await mayChange(tx, who, placeId)
  const [to] = await tx.select().from(places).where(eq(places.id, toId))
  if (!to || to.retiredAt || !maySee(who, to.siteId)) refuse('place_unknown', 'Choose a place from the list.', 'toId')
  if (placeId === toId || to.path.startsWith(place.path) || place.path.startsWith(to.path))
    refuse('same_place', 'One lies within the other: there is no way between them.', 'toId')
  const pairs = input.both ? [[placeId, toId] as const, [toId, placeId] as const] : [[placeId, toId] as const]
  for (const [fromId, other] of pairs)
    await tx
      .insert(travelTimes)
      .values({ fromId, toId: other, source: 'hand', minutes, by: who.name, at: now })
      .onDuplicateKeyUpdate({ set: { minutes, by: who.name, at: now } })
  await tell({
    kind: 'travel.say',
    siteId: place.siteId,
    register: 'places',
    recordId: placeId,
    details: { to: `${to.code} ${to.name}`, minutes },
  })
  return waysFrom(tx, who, placeId)
})

export const dropWay = command(contract.dropWay, async ({ tx, who, input, tell }) => {
  const place = await mayChange(tx, who, input.placeId)
  const [to] = await tx.select().from(places).where(eq(places.id, input.toId))
  await tx
    .delete(travelTimes)
    .where(
      and(
        eq(travelTimes.source, 'hand'),
        or(
          and(eq(travelTimes.fromId, input.placeId), eq(travelTimes.toId, input.toId)),
          and(eq(travelTimes.fromId, input.toId), eq(travelTimes.toId, input.placeId)),
        ),
      ),
    )
  await tell({ kind: 'travel.drop', siteId: place.siteId, register: 'places', recordId: place.id, details: { to: to ? `${to.code} ${to.name}` : '' } })
  return waysFrom(tx, who, input.placeId)
})
