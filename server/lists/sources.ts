import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlTable } from 'drizzle-orm/mysql-core'
import type { Page } from '#contract/kit'
import type { RecordLine, WithOwn } from '#contract/lists'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import { isRegister } from '#core/lists'
import type { ListAsk } from '#core/lists'
import { RECORD_TABLES } from '#server/registers'
import type { Outgoing, Reader } from '#server/kit'
import { orders, requests } from '../tables'
import { orderConditions, orderLines } from './orderLines'
import { recordConditions, recordLines } from './recordLines'
import { requestConditions, requestLines } from './requestLines'
import type { Standpoint } from './standpoint'

export type AnyLine = Outgoing<OrderLine & WithOwn> | Outgoing<RequestLine & WithOwn> | Outgoing<RecordLine>

/** Where the rows of a list are, and what it asks of them. */
export function sourceOf(ask: ListAsk, from: Standpoint): { table: MySqlTable; where: SQL | undefined } {
  if (isRegister(ask.kind)) return { table: RECORD_TABLES[ask.kind], where: recordConditions(ask.kind, ask, from) }
  return ask.kind === 'orders' ? { table: orders, where: orderConditions(ask, from) } : { table: requests, where: requestConditions(ask, from) }
}

/** The rows of a list to be counted, and no more than `most`. */
export function rowsOf(db: Reader, ask: ListAsk, from: Standpoint, most: number) {
  const { table, where } = sourceOf(ask, from)
  return db
    .select({ one: sql`1`.as('one') })
    .from(table)
    .where(where)
    .limit(most)
    .as('some')
}

/** A page of any list. */
export function linesOf(db: Reader, ask: ListAsk, from: Standpoint, page: { after?: string; limit: number }): Promise<Page<AnyLine>> {
  if (isRegister(ask.kind)) return recordLines(db, ask.kind, ask, from, page)
  return ask.kind === 'orders' ? orderLines(db, ask, from, page) : requestLines(db, ask, from, page)
}
