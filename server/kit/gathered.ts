import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'

/** Columns that JSON carries as they are. Instants and decimals would lose their kind on the way. */
type Plain = Record<string, (MySqlColumn & { _: { data: string | number | null } }) | SQL<string> | SQL<number>>

/** Rows that travelled as one column of another row. */
export type Gathered<Columns extends Plain> = {
  [K in keyof Columns]: Columns[K] extends MySqlColumn
    ? Columns[K]['_']['notNull'] extends true
      ? Columns[K]['_']['data']
      : Columns[K]['_']['data'] | null
    : Columns[K] extends SQL<infer Value>
      ? Value
      : never
}[]

/**
 * The rows of another table as one column, so that several small reads are one statement: each saves a turn to the
 * database and back, which takes longer than finding the rows. `from` is everything after the columns; `order` may not be empty.
 *
 * @example
 * db.select({ shares: gathered({ payerId: orderShares.payerId }, sql`from ${orderShares} where …`, orderShares.position) })
 */
export function gathered<Columns extends Plain>(columns: Columns, from: SQL, order: MySqlColumn): SQL<Gathered<Columns>> {
  const pairs = Object.entries(columns).map(([name, column]) => sql`${sql.raw(`'${name}'`)}, ${column}`)
  return sql`(select coalesce(json_arrayagg(json_object(${sql.join(pairs, sql`, `)}) order by ${order}), '[]') ${from})`.mapWith(
    (rows: string | Gathered<Columns>) => (typeof rows === 'string' ? (JSON.parse(rows) as Gathered<Columns>) : rows),
  )
}
