import { eq, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import { KINDS } from '#contract/portraits'
import type { ListKind } from '#core/lists'
import type { Permission } from '#core/people'
import { can, canAt, maySee, notFound } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { assets, equipment, methods, orders, parts, payers, people, places, requests, stores, teams, vendors } from '../tables'

/** Where a thing is kept that documents and own fields may be of, and what it is called by. */
interface Kept {
  table: MySqlTable & { id: MySqlColumn }
  code: MySqlColumn | null
  name: MySqlColumn
  /** Of what is at one site alone. */
  siteId: MySqlColumn | null
  retiredAt: MySqlColumn | null
}

const THINGS: Record<ListKind, Kept> = {
  orders: { table: orders, code: orders.number, name: orders.summary, siteId: orders.siteId, retiredAt: null },
  requests: { table: requests, code: requests.number, name: requests.summary, siteId: requests.siteId, retiredAt: null },
  places: { table: places, code: places.code, name: places.name, siteId: places.siteId, retiredAt: places.retiredAt },
  assets: { table: assets, code: assets.tag, name: assets.name, siteId: assets.siteId, retiredAt: assets.retiredAt },
  people: { table: people, code: null, name: people.name, siteId: people.siteId, retiredAt: people.retiredAt },
  teams: { table: teams, code: null, name: teams.name, siteId: teams.siteId, retiredAt: teams.retiredAt },
  vendors: { table: vendors, code: null, name: vendors.name, siteId: null, retiredAt: vendors.retiredAt },
  payers: { table: payers, code: payers.code, name: payers.name, siteId: null, retiredAt: payers.retiredAt },
  parts: { table: parts, code: parts.code, name: parts.name, siteId: null, retiredAt: parts.retiredAt },
  stores: { table: stores, code: null, name: stores.name, siteId: stores.siteId, retiredAt: stores.retiredAt },
  equipment: { table: equipment, code: equipment.tag, name: equipment.name, siteId: equipment.siteId, retiredAt: equipment.retiredAt },
  methods: { table: methods, code: methods.code, name: methods.name, siteId: null, retiredAt: methods.retiredAt },
}

/** What changes a thing, and so what is kept with it. */
export function editsOf(kind: ListKind): Permission {
  if (kind === 'orders') return 'orders.edit'
  return kind === 'requests' ? 'requests.triage' : (KINDS[kind].edit.may as Permission)
}

export interface SeenThing {
  /** Null for what serves every site. */
  siteId: number | null
  called: string
  retired: boolean
  mayEdit: boolean
}

/** A thing somebody may see. @throws ProblemReply 404 when it is not there, or not theirs to see */
export async function seenThing(db: Reader, who: Asker, kind: ListKind, id: number): Promise<SeenThing> {
  const { table, siteId, retiredAt } = THINGS[kind]
  const [row] = await db
    .select({ called: calledSql(kind), ...(siteId ? { siteId } : {}), ...(retiredAt ? { retiredAt } : {}) })
    .from(table)
    .where(eq(table.id, id))
  const found = row as { called: string; siteId?: number; retiredAt?: Date | null } | undefined
  if (!found || (found.siteId !== undefined && !maySee(who, found.siteId))) throw notFound('record')
  const edits = editsOf(kind)
  return {
    siteId: found.siteId ?? null,
    called: found.called,
    retired: !!found.retiredAt,
    mayEdit: found.siteId === undefined ? can(who, edits) : canAt(who, edits, found.siteId),
  }
}

function calledSql(kind: ListKind): SQL<string> {
  const { code, name } = THINGS[kind]
  return code ? sql<string>`concat(${code}, ' ', ${name})` : sql<string>`${name}`
}

/** Looked up beside a row that names a thing by kind and id. */
const beside = (kind: MySqlColumn, id: MySqlColumn, what: (one: ListKind) => SQL | null): SQL => {
  const cases = (Object.keys(THINGS) as ListKind[]).flatMap((one) => {
    const asked = what(one)
    return asked ? [sql`when ${one} then (select ${asked} from ${THINGS[one].table} where ${THINGS[one].table.id} = ${id})`] : []
  })
  return sql`(case ${kind} ${sql.join(cases, sql` `)} end)`
}

/** The site of the thing a row names; null for what serves every site. */
export const siteOfThing = (kind: MySqlColumn, id: MySqlColumn): SQL =>
  beside(kind, id, (one) => {
    const { siteId } = THINGS[one]
    return siteId && sql`${siteId}`
  })

/** What the thing a row names is called. */
export const calledThing = (kind: MySqlColumn, id: MySqlColumn): SQL<string> => beside(kind, id, calledSql) as SQL<string>
