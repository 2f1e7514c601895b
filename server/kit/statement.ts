import { sql } from 'drizzle-orm'
import type { Placeholder } from 'drizzle-orm'
import type { Reader } from './database'

interface Buildable<Rows> {
  prepare: () => { execute: (values?: Record<string, unknown>) => Promise<Rows> }
}

/**
 * A statement that is built once for each connection pool and then run with other values: building the text
 * of a large one costs more than the database takes to answer it.
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
    const ready = built.get(db) ?? build(db, places).prepare()
    built.set(db, ready)
    return ready.execute(values)
  }
}
