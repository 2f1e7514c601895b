import { and, inArray, isNotNull, isNull } from 'drizzle-orm'
import { middleOf, readPosition, waysOf } from '#core/travel'
import type { Way, WayFacts } from '#core/travel'
import type { Reader } from '#server/kit'
import { places, spaceShapes, travelTimes } from '../tables'

type Plain = { [Key in keyof WayFacts]: [number, number, number][] }

/** What is known of the ways between these places, by their paths: nothing of any other. */
export async function wayFacts(db: Reader, paths: readonly (string | null)[]): Promise<Plain> {
  const ids = [...new Set(paths.flatMap((path) => (path ?? '').split('/').filter(Boolean).map(Number)))]
  if (!ids.length) return { at: [], on: [], said: [] }
  const [standing, drawn, said] = await Promise.all([
    db
      .select({ id: places.id, position: places.position })
      .from(places)
      .where(and(inArray(places.id, ids), isNotNull(places.position), isNull(places.retiredAt))),
    db.select({ id: spaceShapes.spaceId, shape: spaceShapes.shape }).from(spaceShapes).where(inArray(spaceShapes.spaceId, ids)),
    db
      .select()
      .from(travelTimes)
      .where(and(inArray(travelTimes.fromId, ids), inArray(travelTimes.toId, ids))),
  ])
  const word = new Map<string, [number, number, number]>()
  // What somebody said goes before what was logged.
  for (const source of ['stints', 'hand'] as const)
    for (const one of said) if (one.source === source) word.set(`${one.fromId} ${one.toId}`, [one.fromId, one.toId, one.minutes])
  return {
    at: standing.flatMap(({ id, position }): [number, number, number][] => {
      const read = readPosition(position!)
      return read ? [[id, read.lat, read.lon]] : []
    }),
    on: drawn.flatMap(({ id, shape }): [number, number, number][] => {
      const ring = shape[0]
      if (!ring?.length) return []
      const [east, north] = middleOf(ring)
      return [[id, Math.round(east * 10) / 10, Math.round(north * 10) / 10]]
    }),
    said: [...word.values()],
  }
}

/** The ways between these places. */
export const waysBetween = async (db: Reader, paths: readonly (string | null)[]): Promise<Way> => waysOf(await wayFacts(db, paths))
