import { and, desc, eq, like, or } from 'drizzle-orm'
import * as contract from '#contract/places'
import { stationOf } from '#core/orders'
import type { Found } from '#contract/places'
import { assets, orders, people, places, requests } from '../tables'
import { query, withinSites } from '#server/kit'
import { matchesWords } from './words'

const EACH = 5

export default query(contract.searchEverything, async ({ db, who, input }) => {
  const q = input.q.trim()
  if (q.length < 2) return { rows: [] }
  const starts = `${q.toUpperCase()}%`
  const [orderRows, requestRows, placeRows, assetRows, peopleRows] = await Promise.all([
    db
      .select({ id: orders.id, number: orders.number, summary: orders.summary, state: orders.state })
      .from(orders)
      .where(
        and(
          or(like(orders.number, starts), like(orders.number, `%-${q}%`), like(orders.summary, `%${q}%`), eq(orders.outsideReference, q)),
          withinSites(who, orders.siteId),
        ),
      )
      .orderBy(desc(orders.id))
      .limit(EACH),
    db
      .select({ id: requests.id, number: requests.number, summary: requests.summary, state: requests.state, takenUpAt: requests.takenUpAt })
      .from(requests)
      .where(
        and(
          or(like(requests.number, starts), like(requests.number, `%-${q}%`), like(requests.summary, `%${q}%`), eq(requests.outsideReference, q)),
          withinSites(who, requests.siteId),
        ),
      )
      .orderBy(desc(requests.id))
      .limit(EACH),
    db
      .select({ id: places.id, code: places.code, name: places.name })
      .from(places)
      .where(and(matchesWords(places.searchText, q), withinSites(who, places.siteId)))
      .limit(EACH),
    db
      .select({ id: assets.id, tag: assets.tag, name: assets.name })
      .from(assets)
      .where(and(matchesWords(assets.searchText, q), withinSites(who, assets.siteId)))
      .limit(EACH),
    db
      .select({ id: people.id, name: people.name, title: people.title })
      .from(people)
      .where(and(matchesWords(people.searchText, q), withinSites(who, people.siteId)))
      .limit(EACH),
  ])
  const numbered: Found[] = [
    ...orderRows.map((row) => ({ type: 'order' as const, id: row.id, title: row.number, subtitle: row.summary, station: stationOf(row.state) })),
    ...requestRows.map((row) => ({
      type: 'request' as const,
      id: row.id,
      title: row.number,
      subtitle: row.summary,
      station: row.state === 'new' && !row.takenUpAt ? ('intake' as const) : ('triage' as const),
    })),
  ]
  const named: Found[] = [
    ...assetRows.map((row) => ({ type: 'asset' as const, id: row.id, title: row.tag, subtitle: row.name })),
    ...placeRows.map((row) => ({ type: 'place' as const, id: row.id, title: row.code, subtitle: row.name })),
    ...peopleRows.map((row) => ({ type: 'person' as const, id: row.id, title: row.name, subtitle: row.title ?? '' })),
  ]
  // Whoever types a number wants that record; whoever types a name wants the thing that bears it.
  const rows = /^[a-z]{0,2}-?\d{3,}$/i.test(q) ? [...numbered, ...named] : [...named, ...numbered]
  return { rows }
})
