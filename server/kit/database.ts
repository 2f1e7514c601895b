import { drizzle } from 'drizzle-orm/mysql2'
import type { MySql2Database } from 'drizzle-orm/mysql2'
import { createPool } from 'mysql2/promise'
import type { Pool } from 'mysql2/promise'

export type Db = MySql2Database<Record<string, never>>
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
/** Either: for queries that run alone or inside a change. */
export type Reader = Db | Tx

export interface Database {
  db: Db
  pool: Pool
}

export function openDatabase(url: string, connections = 12): Database {
  const pool = createPool({
    uri: url,
    timezone: 'Z',
    connectionLimit: connections,
    decimalNumbers: false,
    charset: 'utf8mb4_general_ci',
    enableKeepAlive: true,
  })
  return { pool, db: drizzle(pool) as unknown as Db }
}

/** The database gave up one of two changes that waited for each other; it may be tried again. */
export function isDeadlock(error: unknown): boolean {
  const code = databaseCode(error)
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_LOCK_WAIT_TIMEOUT' || code === 'ER_CHECKREAD'
}

export function isDuplicate(error: unknown): boolean {
  return databaseCode(error) === 'ER_DUP_ENTRY'
}

function databaseCode(error: unknown): string | undefined {
  const outer = error as { code?: string; cause?: { code?: string } } | null
  return outer?.cause?.code ?? outer?.code
}
