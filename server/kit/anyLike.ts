import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlTable } from 'drizzle-orm/mysql-core'
import type { Reader } from './database'

/** Whether there are rows like these. Most looks find nothing: they end here, without a transaction, which is four questions more. */
export async function anyLike(db: Reader, table: MySqlTable, where: SQL | undefined): Promise<boolean> {
  const query = db
    .select({ one: sql`1` })
    .from(table)
    .where(where)
  return (await query.limit(1)).length > 0
}
