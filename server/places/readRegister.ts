import { and, asc, eq, gt, isNotNull, isNull, or, sql } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/places'
import type { RegisterName } from '#core/registers'
import { assets, equipment, parts, payers, people, places, stockLevels, stores, teams, vendors } from '../tables'
import { decodeCursor, encodeCursor, query, withinSites } from '#server/kit'
import type { Asker, Db } from '#server/kit'
import { namesAbove } from './namePlace'
import { matchesWords } from './words'

interface Ask {
  db: Db
  who: Asker
  q: string | undefined
  after: string | undefined
  limit: number
  retired: boolean
}

/** Rows of one register, one more than asked for, in the order of `key` then id. */
const readers: { [R in RegisterName]: (ask: Ask) => Promise<{ id: number; key: string; row: contract.Registers[R][number] }[]> } = {
  async places({ db, who, q, after, limit, retired }) {
    const rows = await db
      .select()
      .from(places)
      .where(and(matchesWords(places.searchText, q), inUse(places.retiredAt, retired), withinSites(who, places.siteId), beyond(places.code, places.id, after)))
      .orderBy(asc(places.code), asc(places.id))
      .limit(limit)
    const within = await namesAbove(db, rows)
    return rows.map((place) => ({
      id: place.id,
      key: place.code,
      row: { id: place.id, code: place.code, name: place.name, kind: place.kind, within: within.get(place.id)! },
    }))
  },
  async assets({ db, who, q, after, limit, retired }) {
    const rows = await db
      .select({ asset: assets, place: places.name })
      .from(assets)
      .innerJoin(places, eq(places.id, assets.placeId))
      .where(and(matchesWords(assets.searchText, q), inUse(assets.retiredAt, retired), withinSites(who, assets.siteId), beyond(assets.tag, assets.id, after)))
      .orderBy(asc(assets.tag), asc(assets.id))
      .limit(limit)
    return rows.map(({ asset, place }) => ({
      id: asset.id,
      key: asset.tag,
      row: { id: asset.id, tag: asset.tag, name: asset.name, classCode: asset.classCode, place, warrantyUntil: asset.warrantyUntil },
    }))
  },
  async people({ db, who, q, after, limit, retired }) {
    const rows = await db
      .select({ person: people, place: places.name })
      .from(people)
      .leftJoin(places, eq(places.id, people.placeId))
      .where(and(matchesWords(people.searchText, q), inUse(people.retiredAt, retired), withinSites(who, people.siteId), beyond(people.name, people.id, after)))
      .orderBy(asc(people.name), asc(people.id))
      .limit(limit)
    return rows.map(({ person, place }) => ({
      id: person.id,
      key: person.name,
      row: { id: person.id, name: person.name, title: person.title, email: person.email, place },
    }))
  },
  async vendors({ db, q, after, limit, retired }) {
    const rows = await db
      .select()
      .from(vendors)
      .where(and(matchesWords(vendors.name, q), inUse(vendors.retiredAt, retired), beyond(vendors.name, vendors.id, after)))
      .orderBy(asc(vendors.name), asc(vendors.id))
      .limit(limit)
    return rows.map((vendor) => ({
      id: vendor.id,
      key: vendor.name,
      row: {
        id: vendor.id,
        name: vendor.name,
        service: vendor.service,
        email: vendor.email,
        phone: vendor.phone,
        contractUntil: vendor.contractUntil,
        insuranceUntil: vendor.insuranceUntil,
        markupBp: vendor.markupBp,
      },
    }))
  },
  async payers({ db, q, after, limit, retired }) {
    const rows = await db
      .select()
      .from(payers)
      .where(and(or(matchesWords(payers.name, q), matchesWords(payers.code, q)), inUse(payers.retiredAt, retired), beyond(payers.code, payers.id, after)))
      .orderBy(asc(payers.code), asc(payers.id))
      .limit(limit)
    return rows.map((payer) => ({
      id: payer.id,
      key: payer.code,
      row: { id: payer.id, code: payer.code, name: payer.name, kind: payer.kind, taxBp: payer.taxBp },
    }))
  },
  async parts({ db, q, after, limit, retired }) {
    const rows = await db
      .select({
        part: parts,
        inStock: sql<string>`coalesce(sum(${stockLevels.quantity}), 0)`,
        cost: sql<string>`coalesce(max(${stockLevels.averageCostMinor}), 0)`,
      })
      .from(parts)
      .leftJoin(stockLevels, eq(stockLevels.partId, parts.id))
      .where(and(matchesWords(parts.searchText, q), inUse(parts.retiredAt, retired), beyond(parts.code, parts.id, after)))
      .groupBy(parts.id)
      .orderBy(asc(parts.code), asc(parts.id))
      .limit(limit)
    return rows.map(({ part, inStock, cost }) => ({
      id: part.id,
      key: part.code,
      row: { id: part.id, code: part.code, name: part.name, unit: part.unit, inStock, averageCostMinor: Number(cost) },
    }))
  },
  async teams({ db, who, q, after, limit, retired }) {
    const rows = await db
      .select({ id: teams.id, name: teams.name, members: sql<string>`(select count(*) from technician t where t.team_id = team.id)` })
      .from(teams)
      .where(and(matchesWords(teams.name, q), inUse(teams.retiredAt, retired), withinSites(who, teams.siteId), beyond(teams.name, teams.id, after)))
      .orderBy(asc(teams.name), asc(teams.id))
      .limit(limit)
    return rows.map((row) => ({ id: row.id, key: row.name, row: { ...row, members: Number(row.members) } }))
  },
  async stores({ db, who, q, after, limit, retired }) {
    const held = sql<string>`(select count(*) from ${stockLevels} where ${stockLevels.storeId} = ${stores.id} and ${stockLevels.quantity} > 0)`
    const rows = await db
      .select({ id: stores.id, name: stores.name, place: places.name, kinds: held })
      .from(stores)
      .leftJoin(places, eq(places.id, stores.placeId))
      .where(and(matchesWords(stores.name, q), inUse(stores.retiredAt, retired), withinSites(who, stores.siteId), beyond(stores.name, stores.id, after)))
      .orderBy(asc(stores.name), asc(stores.id))
      .limit(limit)
    return rows.map((row) => ({ id: row.id, key: row.name, row: { ...row, kinds: Number(row.kinds) } }))
  },
  async equipment({ db, who, q, after, limit, retired }) {
    const lent = sql<string | null>`(select o.number from equipment_loan l join work_order o on o.id = l.order_id
      where l.equipment_id = equipment.id and l.until_at is null order by l.id limit 1)`
    const rows = await db
      .select({ id: equipment.id, tag: equipment.tag, name: equipment.name, lentTo: lent })
      .from(equipment)
      .where(
        and(
          or(matchesWords(equipment.name, q), matchesWords(equipment.tag, q)),
          inUse(equipment.retiredAt, retired),
          withinSites(who, equipment.siteId),
          beyond(equipment.tag, equipment.id, after),
        ),
      )
      .orderBy(asc(equipment.tag), asc(equipment.id))
      .limit(limit)
    return rows.map((row) => ({ id: row.id, key: row.tag, row }))
  },
}

export default query(contract.readRegister, async ({ db, who, input }) => {
  const limit = input.limit ?? 50
  const found = await readers[input.register]({ db, who, q: input.q, after: input.after, limit: limit + 1, retired: input.retired ?? false })
  const page = found.slice(0, limit)
  const last = page.at(-1)
  return { rows: page.map(({ row }) => row), next: found.length > limit && last ? encodeCursor([last.key, last.id]) : null }
})

const inUse = (at: MySqlColumn, retired: boolean) => (retired ? isNotNull(at) : isNull(at))

function beyond(key: MySqlColumn, id: MySqlColumn, after: string | undefined) {
  if (!after) return undefined
  const [lastKey, lastId] = decodeCursor(after, ['text', 'integer'])
  return or(gt(key, lastKey), and(eq(key, lastKey), gt(id, lastId)))
}
