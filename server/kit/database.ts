import { drizzle } from 'drizzle-orm/mysql2'
import type { MySql2Database } from 'drizzle-orm/mysql2'
import { createPool } from 'mysql2/promise'
import type { Pool } from 'mysql2/promise'
import { DatabaseAway } from './databaseWatch'
import type { DatabaseWatch } from './databaseWatch'
import { isKeptReady } from './statementTexts'

export type Db = MySql2Database<Record<string, never>>
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
/** Either: for queries that run alone or inside a change. */
export type Reader = Db | Tx

export interface Database {
  db: Db
  pool: Pool
}

/** How long somebody waits for a connection of a busy pool before they are told to come again. */
const LONGEST_QUEUE_MS = 30_000

export function connectionOptions(url: string) {
  return {
    uri: url,
    timezone: 'Z',
    decimalNumbers: false,
    charset: 'utf8mb4_general_ci',
    enableKeepAlive: true,
    connectTimeout: 3_000,
    // Where a statement was asked from is noted by the query builder when it fails, and need not be for each that does not.
    trace: false,
  }
}

/**
 * What a change reads is what is there as it reads, on every connection, said as it opens instead of with each change.
 * `mostSeconds` is how long one statement may take. With a `watch`, a pool that never keeps anybody waiting for a database that is away.
 */
export function openDatabase(
  url: string,
  { watch, connections = 12, mostSeconds }: { watch?: DatabaseWatch; connections?: number; mostSeconds?: number } = {},
): Database {
  const pool = createPool({ ...connectionOptions(url), connectionLimit: connections })
  const settings = ['TRANSACTION ISOLATION LEVEL READ COMMITTED', ...(mostSeconds ? [`max_statement_time = ${mostSeconds}`] : [])]
  pool.on('connection', (connection) => {
    for (const setting of settings) (connection as unknown as { query: (sql: string) => unknown }).query(`SET SESSION ${setting}`)
  })
  if (!watch) return { pool, db: drizzle(pool) }
  watch.guard(pool)
  const patient = patientPool(pool, watch)
  return { pool: patient, db: drizzle(patient) }
}

function patientPool(pool: Pool, watch: DatabaseWatch): Pool {
  const getConnection: Pool['getConnection'] = () => watch.orAway(pool.getConnection(), LONGEST_QUEUE_MS, (late) => late.release())
  const once =
    (how: 'query' | 'execute') =>
    async (...query: unknown[]) => {
      const connection = await getConnection()
      const [asked, ...rest] = query
      const by = isKeptReady((asked as { sql?: string }).sql ?? '') ? 'execute' : how
      try {
        return await (connection[by] as (...query: unknown[]) => Promise<unknown>)(withDatesAsText(asked), ...rest)
      } finally {
        connection.release()
      }
    }
  const own: Record<string | symbol, unknown> = { getConnection, query: once('query'), execute: once('execute') }
  return new Proxy(pool, {
    get(target, name) {
      if (name in own) return own[name]
      const value: unknown = Reflect.get(target, name)
      return typeof value === 'function' ? (value as () => unknown).bind(target) : value
    },
  })
}

/**
 * Drizzle wants instants as text and says so by a function that the driver asks about every column of every row,
 * which takes longer than reading the row. The driver has a switch for the same.
 */
const withDatesAsText = (asked: unknown) =>
  typeof (asked as { typeCast?: unknown }).typeCast === 'function' ? { ...(asked as object), typeCast: true, dateStrings: true } : asked

/**
 * The database gave up one of two changes that waited for each other, or met: it may be tried again. Inside a
 * savepoint this shows by the savepoint being gone with the whole change.
 */
export function isDeadlock(error: unknown): boolean {
  return ['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD', 'ER_SP_DOES_NOT_EXIST'].includes(databaseCode(error) ?? '')
}

/** A statement took longer than it may. */
export function isOutOfTime(error: unknown): boolean {
  const outer = error as { errno?: number; cause?: { errno?: number } } | null
  return (outer?.cause?.errno ?? outer?.errno) === 1969
}

export function isDuplicate(error: unknown): boolean {
  return databaseCode(error) === 'ER_DUP_ENTRY'
}

/** Connection refused, lost, timed out or not to be had; the server going down; the disk full. */
const AWAY = [
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CON_COUNT_ERROR',
  'ER_TOO_MANY_USER_CONNECTIONS',
  'ER_QUERY_INTERRUPTED',
]
const FULL = ['ENOSPC', 'EDQUOT', 'ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ER_OPTION_PREVENTS_STATEMENT']

/** Whether it is not the caller's fault nor ours but the database's, for now: `away`, `full`, or neither. */
export function unavailability(error: unknown): 'away' | 'full' | null {
  for (let one = error as { code?: string; message?: string; cause?: unknown } | undefined; one; one = one.cause as typeof one) {
    if (one instanceof DatabaseAway || AWAY.includes(one.code ?? '') || /closed state|Connection lost/.test(one.message ?? '')) return 'away'
    // Error 28 is the operating system's word for a full disk, which engines pass on.
    if (FULL.includes(one.code ?? '') || /errno: 28\b|error 28\b|No space left/.test(one.message ?? '')) return 'full'
  }
  return null
}

function databaseCode(error: unknown): string | undefined {
  const outer = error as { code?: string; cause?: { code?: string } } | null
  return outer?.cause?.code ?? outer?.code
}
