import { and, asc, inArray, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/cobie'
import { query, withinSites } from '#server/kit'
import { places } from '../tables'

export default query(contract.listCobieBuildings, async ({ db, who }) => {
  const below = (what: string) => sql<string>`(select count(*) ${sql.raw(what)} like concat(place.path, '%'))`
  const rows = await db
    .select({
      id: places.id,
      siteId: places.siteId,
      code: places.code,
      name: places.name,
      spaces: below("from place inside where inside.kind = 'space' and inside.retired_at is null and inside.path"),
      assets: below('from asset a join place inside on inside.id = a.place_id where a.retired_at is null and inside.path'),
    })
    .from(places)
    .where(and(inArray(places.kind, ['building', 'grounds']), isNull(places.retiredAt), withinSites(who, places.siteId)))
    .orderBy(asc(places.siteId), asc(places.code))
  return { rows: rows.map((row) => ({ ...row, spaces: Number(row.spaces), assets: Number(row.assets) })) }
})
