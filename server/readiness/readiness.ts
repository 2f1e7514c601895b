import { and, asc, desc, eq, gt, inArray, isNull, like, lt, notInArray, sql } from 'drizzle-orm'
import * as contract from '#contract/readiness'
import type { ReadySpace } from '#contract/readiness'
import { refuse } from '#core/kit'
import { FINISHED_STATES, OVER_STATES } from '#core/orders'
import { READINESS_NAMES, readinessCounts, worstOf } from '#core/readiness'
import type { Readiness } from '#core/readiness'
import { canAt, command, conflict, maySee, notAllowed, notFound, query, recordEvent, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import type { OrderRecord } from '#server/orders'
import { closures, methods, orderMethods, orders, places, spaceReadiness } from '../tables'

const inUse = isNull(places.retiredAt)

export const listReadiness = query(contract.listReadiness, async ({ db, who, now }) => {
  const buildings = await db
    .select({ id: places.id, siteId: places.siteId, code: places.code, name: places.name, path: places.path })
    .from(places)
    .where(and(withinSites(who, places.siteId), inArray(places.kind, ['building', 'grounds']), inUse))
    .orderBy(asc(places.siteId), asc(places.code))
  const spaces = await db
    .select({ id: places.id, path: places.path, state: spaceReadiness.state })
    .from(places)
    .leftJoin(spaceReadiness, eq(spaceReadiness.placeId, places.id))
    .where(and(withinSites(who, places.siteId), eq(places.kind, 'space'), inUse))
  const closed = await closedNear(db, withinSites(who, places.siteId), now)
  const standing = spaces.map((space) => (closed.get(space.id)?.now ? { ...space, state: 'out_of_use' as const } : space))
  const rows = buildings.map(({ path, ...row }) => ({ ...row, counts: readinessCounts(standing.filter((space) => space.path.startsWith(path))) }))
  return { rows: rows.filter(({ counts }) => Object.values(counts).some((n) => n > 0)) }
})

type Row = Outgoing<ReadySpace> & { path: string }

const AHEAD_MS = 7 * 86_400_000

/** The next or running closure of each of these spaces, as far as it is near. */
async function closedNear(db: Reader, where: ReturnType<typeof and>, now: Date): Promise<Map<number, Outgoing<ReadySpace>['closed']>> {
  const rows = await db
    .select({ placeId: closures.placeId, from: closures.fromAt, until: closures.untilAt, reason: closures.reason, orderNumber: orders.number })
    .from(closures)
    .innerJoin(places, eq(places.id, closures.placeId))
    .innerJoin(orders, eq(orders.id, closures.orderId))
    .where(and(where, eq(closures.state, 'kept'), gt(closures.untilAt, now), lt(closures.fromAt, new Date(now.getTime() + AHEAD_MS))))
    .orderBy(desc(closures.fromAt))
  return new Map(rows.map(({ placeId, ...row }) => [placeId, { ...row, now: row.from <= now }]))
}

async function spacesWhere(db: Reader, where: ReturnType<typeof and>, now: Date): Promise<Row[]> {
  const closed = await closedNear(db, where, now)
  const open = sql<string>`(select count(*) from ${orders} where ${orders.placeId} = place.id and ${and(isNull(orders.discardedAt), notInArray(orders.state, [...FINISHED_STATES, ...OVER_STATES]))})`
  const rows = await db
    .select({ id: places.id, code: places.code, name: places.name, path: places.path, said: spaceReadiness, orderNumber: orders.number, open })
    .from(places)
    .leftJoin(spaceReadiness, eq(spaceReadiness.placeId, places.id))
    .leftJoin(orders, eq(orders.id, spaceReadiness.orderId))
    .where(and(eq(places.kind, 'space'), inUse, where))
    .orderBy(asc(places.code))
  return rows.map(({ said, open: n, ...row }) => ({
    ...row,
    // What is out of use for work is so, whatever was said before.
    state: closed.get(row.id)?.now ? ('out_of_use' as const) : (said?.state ?? null),
    closed: closed.get(row.id) ?? null,
    version: said?.version ?? 0,
    note: said?.note ?? null,
    at: said?.at ?? null,
    by: said?.byName ?? null,
    openOrders: Number(n),
  }))
}
const told = ({ path: _, ...space }: Row): Outgoing<ReadySpace> => space

export const readReadiness = query(contract.readReadiness, async ({ db, who, input, now }) => {
  const [building] = await db.select().from(places).where(eq(places.id, input.id))
  if (!building || !['building', 'grounds'].includes(building.kind) || !maySee(who, building.siteId)) throw notFound('building')
  const [floors, spaces] = await Promise.all([
    db
      .select({ id: places.id, code: places.code, name: places.name, path: places.path })
      .from(places)
      .where(and(like(places.path, `${building.path}%`), eq(places.kind, 'floor'), inUse))
      .orderBy(asc(places.code)),
    spacesWhere(db, like(places.path, `${building.path}%`), now),
  ])
  const { id, code, name } = building
  const on = floors.map(({ path, ...floor }) => ({ ...floor, spaces: spaces.filter((space) => space.path.startsWith(path)).map(told) }))
  const rest = spaces.filter((space) => !floors.some(({ path }) => space.path.startsWith(path))).map(told)
  return { building: { id, code, name }, floors: [...on, ...(rest.length ? [{ id, code, name, spaces: rest }] : [])].filter((floor) => floor.spaces.length) }
})

interface Saying {
  placeId: number
  siteId: number
  called: string
  state: Readiness
  note: string | null
  orderId: number | null
}

/** Keeps how a space stands from now on, and tells of it on its timeline. */
async function keepReadiness(
  tx: Tx,
  by: Pick<Asker, 'accountId' | 'name'>,
  now: Date,
  { placeId, siteId, called, state, note, orderId }: Saying,
): Promise<void> {
  const [before] = await tx.select().from(spaceReadiness).where(eq(spaceReadiness.placeId, placeId)).for('update')
  const said = { state, note, at: now, byName: by.name, orderId, version: (before?.version ?? 0) + 1 }
  await tx
    .insert(spaceReadiness)
    .values({ placeId, ...said })
    .onDuplicateKeyUpdate({ set: said })
  await recordEvent(tx, by, now, {
    kind: 'space.readiness',
    siteId,
    register: 'places',
    recordId: placeId,
    ...(orderId ? { orderId } : {}),
    reason: note,
    details: { space: called, state: READINESS_NAMES[state], was: before ? READINESS_NAMES[before.state] : null },
  })
}

export const sayReadiness = command(contract.sayReadiness, async ({ tx, who, input, now }) => {
  const { id, version, state } = input
  const [place] = await tx.select().from(places).where(eq(places.id, id)).for('update')
  if (!place || !maySee(who, place.siteId)) throw notFound('place')
  if (!canAt(who, 'spaces.say', place.siteId)) throw notAllowed()
  if (place.kind !== 'space' || place.retiredAt) refuse('no_space', 'Only spaces that are in use are ready or not.')
  const [before] = await tx.select().from(spaceReadiness).where(eq(spaceReadiness.placeId, id))
  if ((before?.version ?? 0) !== version)
    throw conflict(before?.version ?? 0, [{ field: 'state', theirs: before ? READINESS_NAMES[before.state] : null, yours: READINESS_NAMES[state] }])
  const note = input.note?.trim() || null
  if (state === 'out_of_use' && !note) refuse('note_missing', 'Say why it is out of use.', 'note')
  await keepReadiness(tx, who, now, { placeId: id, siteId: place.siteId, called: `${place.code} ${place.name}`, state, note, orderId: null })
  return told((await spacesWhere(tx, eq(places.id, id), now))[0]!)
})

/** Finished work leaves its space as the methods of the order say: the worst of it, and nothing where none says anything. */
export async function leaveSpace(tx: Tx, by: Pick<Asker, 'accountId' | 'name'>, order: OrderRecord, now: Date): Promise<void> {
  if (order.placeId === null) return
  const left = await tx
    .select({ leaves: methods.leaves })
    .from(orderMethods)
    .innerJoin(methods, eq(methods.id, orderMethods.methodId))
    .where(eq(orderMethods.orderId, order.id))
  const state = worstOf(left.map(({ leaves }) => leaves))
  if (!state) return
  const [place] = await tx.select().from(places).where(eq(places.id, order.placeId)).for('update')
  if (place?.kind !== 'space') return
  const note = `${order.number} ${order.summary}`.slice(0, 200)
  await keepReadiness(tx, by, now, { placeId: place.id, siteId: order.siteId, called: `${place.code} ${place.name}`, state, note, orderId: order.id })
}
