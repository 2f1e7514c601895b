import { and, eq, isNull, like, ne, sql } from 'drizzle-orm'
import { counted, foldText } from '#core/kit'
import type { Reason } from '#core/kit'
import { mayHold, PLACE_FIELDS, PLACE_KIND_NAMES } from '#core/places'
import type { PlaceFields } from '#core/places'
import { readPosition } from '#core/travel'
import { isWithin, movedPaths, pathUnder } from '#core/registers'
import type { Tx } from '#server/kit'
import { lockTree, takenBy } from '#server/registers'
import type { Keeper, RecordRow } from '#server/registers'
import { assets, orders, places, requests } from '../tables'

type PlaceRow = RecordRow & PlaceFields & { path: string; siteId: number }

const branch = (path: string) => sql`(select inside.id from place inside where inside.path like ${`${path}%`})`

/** How places are kept: site, building, floor, space, in one tree. */
export const placeKeeper: Keeper<PlaceFields> = {
  register: 'places',
  table: places,
  fields: PLACE_FIELDS,
  called: ({ code, name }) => ({ code, heading: name }),
  orders: (row) => sql`${orders.placeId} in ${branch((row as PlaceRow).path)}`,
  requests: (row) => sql`${requests.placeId} in ${branch((row as PlaceRow).path)}`,

  async refuses(tx, row, was) {
    const [after, before] = [row as PlaceRow, was as PlaceRow | null]
    const reasons: Reason[] = []
    if (after.code !== before?.code)
      reasons.push(
        ...(await takenBy(
          tx,
          {
            register: 'places',
            table: places,
            id: after.id,
            where: and(eq(places.siteId, after.siteId), eq(places.code, after.code)),
            field: 'code',
            word: after.code,
          },
          (other) => String(other.name),
        )),
      )
    if (after.position && !readPosition(after.position))
      reasons.push({ code: 'position', sentence: 'Write degrees north and east, like 53.2707, -9.0568.', field: 'position' })
    if (before && after.parentId === before.parentId) return reasons
    await lockTree(tx, after.siteId)
    if (after.kind === 'site') return [...reasons, { code: 'site_place', sentence: 'A site stands in nothing, and is made in Setup.', field: 'kind' }]
    if (!after.parentId)
      return [...reasons, { code: 'parent_missing', sentence: 'Say what it is within: a building, a floor, or the site.', field: 'parentId' }]
    const [parent] = await tx.select().from(places).where(eq(places.id, after.parentId))
    if (before && isWithin(parent!, before))
      reasons.push({ code: 'circle', sentence: `${parent!.code} ${parent!.name} is within this one: nothing can stand within itself.`, field: 'parentId' })
    if (!mayHold(parent!.kind, after.kind))
      reasons.push({
        code: 'wrong_kind',
        sentence: `${PLACE_KIND_NAMES[after.kind]} cannot stand directly in ${PLACE_KIND_NAMES[parent!.kind].toLowerCase()} ${parent!.code}.`,
        field: 'parentId',
      })
    return reasons
  },

  /** Both are known once it has its id. */
  follows: (_tx, _after, before) => Promise.resolve(before ? {} : { path: '', searchText: '' }),

  async settle(tx, row, was) {
    const [after, before] = [row as PlaceRow, was as PlaceRow | null]
    if (before && after.parentId === before.parentId && after.name === before.name && after.code === before.code) return
    const [parent] = after.parentId ? await tx.select({ id: places.id, path: places.path }).from(places).where(eq(places.id, after.parentId)) : []
    if (!before) await setPath(tx, { id: after.id, path: pathUnder(parent?.path ?? null, after.id) })
    else if (after.parentId !== before.parentId) {
      const nodes = await tx
        .select({ id: places.id, path: places.path })
        .from(places)
        .where(like(places.path, `${before.path}%`))
        .for('update')
      for (const node of movedPaths(nodes, before, parent ?? null)!) await setPath(tx, node)
    }
    await refreshWords(tx, after.id)
  },

  async holds(db, row) {
    if ((row as PlaceRow).kind === 'site') return [{ code: 'site_place', sentence: 'A site stays: it is set up, and closed, by administrators.' }]
    const inside = await db
      .select({ n: sql<string>`count(*)` })
      .from(places)
      .where(and(like(places.path, `${(row as PlaceRow).path}%`), ne(places.id, row.id), isNull(places.retiredAt)))
    const standing = await db
      .select({ n: sql<string>`count(*)` })
      .from(assets)
      .where(and(sql`${assets.placeId} in ${branch((row as PlaceRow).path)}`, isNull(assets.retiredAt)))
    const [rooms, machines] = [Number(inside[0]!.n), Number(standing[0]!.n)]
    if (!rooms && !machines) return []
    const parts = [rooms ? counted(rooms, 'place') : '', machines ? counted(machines, 'asset') : ''].filter(Boolean).join(' and ')
    return [{ code: 'not_empty', sentence: `${parts} in it ${rooms + machines === 1 ? 'is' : 'are'} still in use. Move or retire what is in it first.` }]
  },
}

const setPath = (tx: Tx, { id, path }: { id: number; path: string }) => tx.update(places).set({ path, searchText: '' }).where(eq(places.id, id))

/** The names above a place stand in its words for searching, and in those of everything below it. */
async function refreshWords(tx: Tx, id: number): Promise<void> {
  const [top] = await tx.select({ path: places.path }).from(places).where(eq(places.id, id))
  const all = await tx
    .select({ id: places.id, code: places.code, name: places.name, kind: places.kind, path: places.path })
    .from(places)
    .where(sql`${places.path} like ${`${top!.path}%`} or ${top!.path} like concat(${places.path}, '%')`)
  const byId = new Map(all.map((place) => [place.id, place]))
  for (const place of all.filter((one) => one.path.startsWith(top!.path))) {
    const names = place.path
      .split('/')
      .filter(Boolean)
      .flatMap((one) => byId.get(Number(one)) ?? [])
      .filter((one) => one.kind !== 'site' || one.id === place.id)
      .map((one) => one.name)
      .reverse()
    await tx
      .update(places)
      .set({ searchText: foldText(`${place.code} ${names.join(' ')}`).slice(0, 400) })
      .where(eq(places.id, place.id))
  }
}
