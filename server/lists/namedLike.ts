import { and, asc, gt, inArray, ne, sql } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { withinSites } from '#server/kit'
import { matchesWords } from '#server/places'
import { assets, people, places } from '../tables'
import { insidePlaces } from './conditions'
import type { Found, Looked, Looking } from './searching'

interface Named {
  table: MySqlTable
  id: MySqlColumn
  siteId: MySqlColumn
  placeId: MySqlColumn
  words: MySqlColumn
  /** What it is called by, and what stands beside it. */
  title: MySqlColumn
  subtitle: MySqlColumn
}

const NAMED: Record<'place' | 'asset' | 'person', Named> = {
  place: { table: places, id: places.id, siteId: places.siteId, placeId: places.id, words: places.searchText, title: places.code, subtitle: places.name },
  asset: { table: assets, id: assets.id, siteId: assets.siteId, placeId: assets.placeId, words: assets.searchText, title: assets.tag, subtitle: assets.name },
  person: {
    table: people,
    id: people.id,
    siteId: people.siteId,
    placeId: people.placeId,
    words: people.searchText,
    title: people.name,
    subtitle: people.title,
  },
}

/** Things that bear a name with these words: the one that is called just so first, then a building before the rooms made after it. */
export function namedLike(type: keyof typeof NAMED): (looking: Looking) => Promise<Looked> {
  const { table, id, siteId, placeId, words: text, title, subtitle } = NAMED[type]
  return async ({ db, who, words, before, limit, ask }) => {
    const meant = ask.q.trim()
    const rows = (await db
      .select({ id, title, subtitle })
      .from(table)
      .where(
        and(
          matchesWords(text, words.join(' ')),
          withinSites(who, siteId),
          before ? and(gt(id, before), ne(title, meant)) : undefined,
          ask.placeId ? insidePlaces(placeId, [ask.placeId]) : undefined,
        ),
      )
      .orderBy(...(before ? [] : [sql`${title} <> ${meant}`]), asc(id))
      .limit(limit)) as Row[]
    return { rows: rows.map((row) => foundOf(type, row)), partial: false }
  }
}

/** Those of these that somebody may see. */
export async function namedByIds(type: keyof typeof NAMED, { db, who, ask, limit }: Looking, ids: number[]): Promise<Found[]> {
  const { table, id, siteId, placeId, title, subtitle } = NAMED[type]
  const rows = (await db
    .select({ id, title, subtitle })
    .from(table)
    .where(and(inArray(id, ids), withinSites(who, siteId), ask.placeId ? insidePlaces(placeId, [ask.placeId]) : undefined))
    .orderBy(asc(id))
    .limit(limit)) as Row[]
  return rows.map((row) => foundOf(type, row))
}

interface Row {
  id: number
  title: string
  subtitle: string | null
}
const foundOf = (type: keyof typeof NAMED, row: Row): Found => ({
  ...row,
  subtitle: row.subtitle ?? '',
  type,
  key: row.id,
  snippet: null,
  state: null,
  station: null,
  at: null,
})
