import { sql } from 'drizzle-orm'
import type { Placeholder } from 'drizzle-orm'
import type { Reader } from './database'
import { keepReady } from './statementTexts'

interface Ready<Rows> {
  execute: (values?: Record<string, unknown>) => Promise<Rows>
}
interface Buildable<Rows> {
  toSQL: () => { sql: string }
  prepare: () => Ready<Rows>
}

/**
 * A statement that is built once and then run with other values, inside a change as well: building the text of a large
 * one costs more than the database takes to answer it. Outside of changes the database keeps it ready, too.
 *
 * @example
 * const visitsOf = statement(['orderId'], (db, { orderId }) => db.select().from(visits).where(eq(visits.orderId, orderId)))
 * await visitsOf(db, { orderId: 7 })
 */
export function statement<Name extends string, Rows>(
  names: readonly Name[],
  build: (db: Reader, values: Record<Name, Placeholder>) => Buildable<Rows>,
): (db: Reader, values: Record<Name, unknown>) => Promise<Rows> {
  const places = Object.fromEntries(names.map((name) => [name, sql.placeholder(name)])) as unknown as Record<Name, Placeholder>
  let first: Ready<Rows> | null = null
  return (db, values) => {
    if (!first) {
      const query = build(db, places)
      keepReady(query.toSQL().sql)
      first = query.prepare()
    }
    return over(db, first).execute(values)
  }
}

/** The same statement over another connection: all that is of the one it was built for is the client it holds. */
function over<Rows>(db: Reader, ready: Ready<Rows>): Ready<Rows> {
  const { client } = (db as unknown as { session: { client: object } }).session
  return Object.create(ready, { client: { value: client } }) as Ready<Rows>
}
