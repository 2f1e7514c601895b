import { sql } from 'drizzle-orm'
import type { Placeholder } from 'drizzle-orm'
import type { Reader } from './database'
import { keepReady } from './statementTexts'

interface Buildable<Rows> {
  toSQL: () => { sql: string }
  prepare: () => { execute: (values?: Record<string, unknown>) => Promise<Rows> }
}

/**
 * A statement that is built once for each connection pool and then run with other values: building the text
 * of a large one costs more than the database takes to answer it. Outside of changes the database keeps it ready as well.
 *
 * @example
 * const visitsOf = statement(['orderId'], (db, { orderId }) => db.select().from(visits).where(eq(visits.orderId, orderId)))
 * await visitsOf(db, { orderId: 7 })
 */
export function statement<Name extends string, Rows>(
  names: readonly Name[],
  build: (db: Reader, values: Record<Name, Placeholder>) => Buildable<Rows>,
): (db: Reader, values: Record<Name, unknown>) => Promise<Rows> {
  const built = new WeakMap<Reader, ReturnType<Buildable<Rows>['prepare']>>()
  const places = Object.fromEntries(names.map((name) => [name, sql.placeholder(name)])) as unknown as Record<Name, Placeholder>
  return (db, values) => {
    let ready = built.get(db)
    if (!ready) {
      const query = build(db, places)
      keepReady(query.toSQL().sql)
      built.set(db, (ready = query.prepare()))
    }
    return ready.execute(values)
  }
}
