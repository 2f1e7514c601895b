import { and, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { STANDING_TESTS } from '#core/orders'
import type { StandingTest, TargetStanding } from '#core/orders'

const OPERATORS: Record<StandingTest[0], SQL> = { '>': sql`>`, '>=': sql`>=`, '<': sql`<`, '<=': sql`<=` }

/** Whether a promise stands like this at a moment: the tests of core, in SQL. */
export function standsLike(standing: TargetStanding, at: SQL, edges: { closeAt: MySqlColumn; completionDueAt: MySqlColumn }): SQL {
  return sql`(${and(...STANDING_TESTS[standing].map(([how, edge]) => sql`${at} ${OPERATORS[how]} ${edges[edge]}`))!})`
}
